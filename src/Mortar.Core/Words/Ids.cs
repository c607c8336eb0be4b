namespace Mortar.Core.Words;

/// <summary>A person, with or without an account.</summary>
public readonly record struct PersonId(Guid Value)
{
    /// <summary>Nobody in particular: who only reads, is named on no event and has added none.</summary>
    public static PersonId Nobody => default;

    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out PersonId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>A group: staff, a class, a club, a family.</summary>
public readonly record struct GroupId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out GroupId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>A shared calendar of a group.</summary>
public readonly record struct CalendarId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out CalendarId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>An event, single or a whole series.</summary>
public readonly record struct EventId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out EventId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>An invitation to one step on one calendar.</summary>
public readonly record struct InvitationId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out InvitationId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>A request for a step on one calendar.</summary>
public readonly record struct AskId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out AskId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>A noticeboard.</summary>
public readonly record struct NoticeboardId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out NoticeboardId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>A link that gives a step on one calendar to whoever holds it.</summary>
public readonly record struct LinkId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out LinkId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>Several times put to people as one question.</summary>
public readonly record struct ProposalId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out ProposalId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}

/// <summary>All changes that one act of one person made; what one <em>Undo</em> takes back.</summary>
public readonly record struct ChangeSetId(Guid Value)
{
    /// <summary>Reads one as it stands in an address.</summary>
    public static bool TryParse(string? text, out ChangeSetId id)
    {
        var isOne = Guid.TryParse(text, out var value);
        id = new(value);
        return isOne;
    }
}
