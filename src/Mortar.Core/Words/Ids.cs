namespace Mortar.Core.Words;

/// <summary>A person, with or without an account.</summary>
public readonly record struct PersonId(Guid Value);

/// <summary>A group: staff, a class, a club, a family.</summary>
public readonly record struct GroupId(Guid Value);

/// <summary>A shared calendar of a group.</summary>
public readonly record struct CalendarId(Guid Value);

/// <summary>An event, single or a whole series.</summary>
public readonly record struct EventId(Guid Value);

/// <summary>An invitation to one step on one calendar.</summary>
public readonly record struct InvitationId(Guid Value);

/// <summary>A request for a step on one calendar.</summary>
public readonly record struct AskId(Guid Value);

/// <summary>A link that gives a step on one calendar to whoever holds it.</summary>
public readonly record struct LinkId(Guid Value);

/// <summary>Several times put to people as one question.</summary>
public readonly record struct ProposalId(Guid Value);

/// <summary>All changes that one act of one person made; what one <em>Undo</em> takes back.</summary>
public readonly record struct ChangeSetId(Guid Value);
