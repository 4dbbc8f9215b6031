using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.EngineStation;

/// <summary>Judges an exhaust's pressure test after a repair against the one before it. There is no usual figure for either: the manual has it.</summary>
public static class ExhaustPressure
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <param name="before">What it held as found, in any unit of pressure.</param>
    /// <param name="after">What it held after the repair, in the same unit.</param>
    public static Judgement Judge(double before, double after) => after < before
        ? new(Verdict.Reject, "Holds less than before the repair", Practice, after - before, "The repair leaks, or opened another place: soap it, find it, and test again.")
        : after == before
            ? new(Verdict.Watch, "Holds no more than before the repair", Practice, 0, "The repair changed nothing that the test sees: look for another leak, and test again.")
            : new(Verdict.Good, "Holds more than before the repair", Practice, after - before, "Look at it again at the next service: an older repair beside a new one says the part nears its end.");
}
