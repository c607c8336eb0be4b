using Mortar.Core.Undo;
using Mortar.Core.Words;

namespace Mortar.Data.Undo;

/// <summary>How much of an act is to be undone.</summary>
/// <param name="Reach">What becomes of it where something was changed since.</param>
/// <param name="In">What it did in this calendar alone; <c>null</c> for all of it.</param>
public sealed record UndoWish(UndoReach Reach = UndoReach.Whole, CalendarId? In = null);

/// <summary>What came of undoing.</summary>
/// <param name="Returned">How many things are as before.</param>
/// <param name="Left">How many were changed since and stay as they are.</param>
public sealed record Undone(int Returned, int Left);
