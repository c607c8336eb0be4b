using System.Diagnostics.CodeAnalysis;
using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>
/// Somebody's mail address, as it may be told to one reader. It comes only out of a rule that says why, as a
/// <see cref="VisibleEvent"/> does: whatever tells an address holds one of these.
/// </summary>
public sealed record ToldAddress
{
    private ToldAddress(string value) => Value = value;

    /// <summary>The address.</summary>
    public string Value { get; }

    /// <summary>One's own.</summary>
    [return: NotNullIfNotNull(nameof(address))]
    public static ToldAddress? Own(string? address) => Told(address);

    /// <summary>A member's, to those who coordinate a group they are in.</summary>
    /// <param name="coordinates">Whether the reader coordinates it.</param>
    /// <param name="address">The address; <c>null</c> where they have none.</param>
    public static ToldAddress? OfMember(bool coordinates, string? address) => coordinates ? Told(address) : null;

    /// <summary>A guest's, to those who coordinate the group, and to whoever brought them.</summary>
    /// <param name="coordinates">Whether the reader coordinates the group.</param>
    /// <param name="reader">Who reads.</param>
    /// <param name="addedBy">Who brought the guest.</param>
    /// <param name="address">The address.</param>
    public static ToldAddress? OfGuest(bool coordinates, PersonId reader, PersonId? addedBy, string? address) =>
        coordinates || reader == addedBy ? Told(address) : null;

    /// <summary>That of somebody who asks for access: they give it with their request to those who answer it.</summary>
    [return: NotNullIfNotNull(nameof(address))]
    public static ToldAddress? OfAsker(string? address) => Told(address);

    /// <summary>One that stands in what the reader, or somebody with whom they keep the same thing, wrote: an invitation, a list.</summary>
    [return: NotNullIfNotNull(nameof(address))]
    public static ToldAddress? AsWritten(string? address) => Told(address);

    /// <summary>That to which a mail went, to whoever holds the secret of its link.</summary>
    public static ToldAddress OfMail(string address) => new(address);

    /// <inheritdoc />
    public override string ToString() => Value;

    private static ToldAddress? Told(string? address) => address is null ? null : new(address);
}
