using Mortar.Core.Access;
using Mortar.Core.Words;

namespace Mortar.Core.Devices;

/// <summary>A calendar program of somebody's, which reads and writes for them with a key of its own, and never their password.</summary>
/// <param name="Name">What they call it; one line.</param>
/// <param name="Role">
/// The step at most: <see cref="Role.Edit"/> for all that they may, <see cref="Role.View"/> to read all that they see,
/// <see cref="Role.Outline"/> and <see cref="Role.Times"/> to read no more of any calendar.
/// </param>
public sealed record Device(string Name, Role Role)
{
    /// <summary>The most that one person has at a time.</summary>
    public const int Most = 30;

    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 60;

    /// <summary>Whether it may change anything.</summary>
    public bool Writes => Role >= Role.Edit;

    /// <summary>Makes the name safe and checks it.</summary>
    public Checked<Device> Check()
    {
        var device = this with { Name = PlainText.OneLine(Name) };
        var problems = new List<FieldProblem>();
        if (device.Name.Length is 0 or > LongestName)
        {
            problems.Add(
                new FieldProblem(
                    "name",
                    device.Name.Length == 0
                        ? "Give it a name, so that you know it again: “My phone”."
                        : $"A name can have up to {LongestName} characters."
                )
            );
        }

        if (Role is not (Role.Times or Role.Outline or Role.View or Role.Edit))
        {
            problems.Add(
                new FieldProblem(
                    "role",
                    "A device does all that you may, or reads only: at View, Outline or Times only."
                )
            );
        }

        return new(device, problems);
    }

    /// <summary>Why there cannot be one more; <c>null</c> where there can.</summary>
    /// <param name="count">How many there are.</param>
    public static Refusal? WhyNotMore(int count) =>
        count < Most
            ? null
            : new Refusal.AgainstRule(
                "too-many",
                FormattableString.Invariant($"One person has up to {Most} devices. End one that is not used any more.")
            );

    /// <summary>The step at which it reads a calendar: its owner's, or its own where that is lower and keeps some of it back.</summary>
    /// <param name="owners">Its owner's step now.</param>
    public Role On(Role owners) => Role >= Role.View || owners < Role ? owners : Role;

    /// <summary>As whom it reads: as its owner, or where it is to be shown less, as somebody who is named on nothing.</summary>
    /// <param name="owner">Whose it is.</param>
    public PersonId ReadsAs(PersonId owner) => Role >= Role.View ? owner : PersonId.Nobody;
}
