namespace Mortar.Core.Recurrence;

/// <summary>What reading a rule's text came to.</summary>
public abstract record RuleParse
{
    private RuleParse() { }

    /// <summary>The rule.</summary>
    public sealed record Ok(RecurrenceRule Rule) : RuleParse;

    /// <summary>A rule in another calendar than the Gregorian (RFC 7529), which is not computed; the text is to be kept.</summary>
    /// <param name="Part">The part that is beyond us, for example <c>RSCALE=HEBREW</c>.</param>
    public sealed record NotShown(string Part) : RuleParse;

    /// <summary>Not a rule.</summary>
    /// <param name="Column">The 0-based place of the first character that does not fit.</param>
    /// <param name="Expected">What would fit there.</param>
    public sealed record Bad(int Column, string Expected) : RuleParse;
}
