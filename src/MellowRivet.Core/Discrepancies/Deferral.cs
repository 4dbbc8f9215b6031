using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Discrepancies;

public enum DeferralSays { Yes = 1, No, CannotTell }

public enum DeferralOutcome { NotYet = 1, MayBeDeferred, MayNotBeDeferred }

/// <summary>A question of the deferral test.</summary>
/// <param name="Key">Its name.</param>
/// <param name="Text">The question.</param>
/// <param name="GoesOn">The answer with which the test goes on; the other one ends it.</param>
/// <param name="Stops">What the other answer means.</param>
/// <param name="Source">Where it comes from.</param>
public sealed record DeferralQuestion(string Key, string Text, DeferralSays GoesOn, string Stops, RuleSource Source);

/// <summary>An answer, with who gave it.</summary>
public sealed record DeferralAnswer(string Question, DeferralSays Says, string Words, Guid By, DateTimeOffset At);

/// <summary>
/// Whether an inoperative item may be deferred on an aircraft without a minimum equipment list: 14 CFR 91.213(d), question by
/// question, from memory. Not knowing is never a yes: it stops until somebody has looked it up.
/// </summary>
public sealed record DeferralWalk(IReadOnlyList<DeferralAnswer> Answers)
{
    private static RuleSource Law(string paragraph) => new(Standing.Law, $"14 CFR {paragraph}, from memory");

    public static IReadOnlyList<DeferralQuestion> Questions { get; } =
    [
        new("equipment", "Is it an instrument or equipment that doesn’t work?", DeferralSays.Yes,
            "A leak, a crack, corrosion, a loose or missing fastener, a chafed line are no inoperative equipment: there is "
            + "nothing to defer. Put it right.", Law("91.213(d)")),
        new("mel", "Does the aircraft fly under an approved minimum equipment list?", DeferralSays.No, "The list decides, not this test.",
            Law("91.213(a)")),
        new("typeCertificate", "Is it part of the day-VFR instruments and equipment that the type certificate requires?", DeferralSays.No,
            "The type certificate requires it.", Law("91.213(d)(2)(i)")),
        new("equipmentList", "Does the equipment list or the kinds-of-operation list say it is required for the kind of flight?",
            DeferralSays.No, "The equipment list requires it.", Law("91.213(d)(2)(ii)")),
        new("operatingRule", "Is it required by 91.205 or another rule for the kind of flight?", DeferralSays.No,
            "A rule for the flight requires it.", Law("91.213(d)(2)(iii)")),
        new("directive", "Is it required to work by an airworthiness directive?", DeferralSays.No, "A directive requires it to work.",
            Law("91.213(d)(2)(iv)")),
        new("deactivated", "Is it removed, or deactivated and placarded “Inoperative”, and entered under 43.9?", DeferralSays.Yes,
            "It has to be removed, or deactivated and placarded, first.", Law("91.213(d)(3)")),
        new("noHazard", "Has a certificated pilot or mechanic determined that it is no hazard to the aircraft?", DeferralSays.Yes,
            "Somebody entitled to has to decide that it is no hazard.", Law("91.213(d)(4)")),
    ];

    /// <summary>The question that comes next; null when all are answered, or one has ended it.</summary>
    public DeferralQuestion? Next => Ended is null ? Questions.FirstOrDefault(question => Of(question) is null) : null;

    public DeferralOutcome Outcome => Ended is { } end
        ? Of(end)!.Says == DeferralSays.CannotTell ? DeferralOutcome.NotYet : DeferralOutcome.MayNotBeDeferred
        : Next is null ? DeferralOutcome.MayBeDeferred : DeferralOutcome.NotYet;

    public string InWords => Ended is { } end
        ? Of(end)!.Says == DeferralSays.CannotTell ? $"Can't tell yet: look it up. {end.Text}" : $"May not be deferred. {end.Stops}"
        : Next is null ? "May be deferred."
        : $"{Questions.Count(question => Of(question) is not null)} of {Questions.Count} questions answered.";

    /// <summary>Nothing forbids it, and the placard is due: it is put up before anybody says that it is.</summary>
    public bool WantsPlacard => Next?.Key is "deactivated" or "noHazard" || Outcome == DeferralOutcome.MayBeDeferred;

    /// <summary>The answer to a question; null where it has none.</summary>
    public DeferralAnswer? Of(DeferralQuestion question) => Answers.FirstOrDefault(answer => answer.Question == question.Key);

    /// <summary>The answers with one more: what came after it in the test is asked anew.</summary>
    public (IReadOnlyList<DeferralAnswer> Answers, Refusal? Refusal) With(DeferralAnswer answer)
    {
        var at = Questions.Select((question, index) => (question, index)).FirstOrDefault(pair => pair.question.Key == answer.Question);
        if (at.question is null || !Enum.IsDefined(answer.Says))
            return (Answers, new("deferral", "There is no such question."));
        var before = Questions.Take(at.index).ToList();
        return before.Any(question => Of(question)?.Says != question.GoesOn)
            ? (Answers, new("deferral", "The questions go in order: an earlier one isn't answered, or has ended the test."))
            : ([.. Answers.Where(other => before.Any(question => question.Key == other.Question)), answer], null);
    }

    private DeferralQuestion? Ended => Questions.FirstOrDefault(question => Of(question) is { } answer && answer.Says != question.GoesOn);
}
