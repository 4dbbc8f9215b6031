using System.Text.Json.Serialization;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Signing;

/// <summary>Where in the walk something was judged, and is read or looked at again.</summary>
/// <param name="EngineId">The engine whose page it is; null off the engine station's own pages.</param>
/// <param name="Sheet">The sheet of the engine station; null for compressions, plugs and tasks.</param>
/// <param name="Carrier">The part that sheet is about.</param>
/// <param name="Hole">The plug's hole.</param>
/// <param name="TaskId">The task of the walk.</param>
/// <param name="Cylinder">The cylinder whose compression it is.</param>
/// <param name="ZoneKey">The zone it lies in.</param>
public sealed record JudgedWhere(string ZoneKey, Guid? EngineId = null, SheetKind? Sheet = null, Guid? Carrier = null, string? Hole = null,
    Guid? TaskId = null, int? Cylinder = null);

/// <summary>One thing that was judged at an inspection, whatever sheet it stands on.</summary>
/// <param name="Key">What it is a judgement of: the same value read again on the same part has the same key.</param>
/// <param name="What">What was judged, in words: "Compression, cylinder 2".</param>
/// <param name="Saw">What was read or seen, in words: "15/80 psi, rings".</param>
/// <param name="Where">Where it stands.</param>
/// <param name="ComponentId">The part it was judged on; null for the airframe.</param>
/// <param name="Judgement">Verdict, rule, standing and next step.</param>
/// <param name="By">Who read or looked.</param>
/// <param name="At">When.</param>
/// <param name="Needed">Whether the inspection asks for it, so that not being able to tell wants an answer too.</param>
public sealed record Judged(string Key, string What, string Saw, JudgedWhere Where, Guid? ComponentId, Judgement Judgement, Guid By,
    DateTimeOffset At, bool Needed = true)
{
    /// <summary>A number that is read again once the work is done; false for a look, whose correction says what there is now.</summary>
    public bool IsMeasured { get; init; } = true;

    /// <summary>Where in its zone, in words: "cylinder 2", "left magneto"; empty where that says nothing.</summary>
    [JsonIgnore]
    public string Place { get; init; } = "";

    /// <summary>The picture that was taken of it; null without one.</summary>
    [JsonIgnore]
    public Photo? Photo { get; init; }

    /// <summary>Nothing is signed before somebody has answered it.</summary>
    public bool WantsAnswer => Judgement.Verdict is Verdict.Reject or Verdict.Retest || (Judgement.Verdict == Verdict.Unknown && Needed);

    /// <summary>What makes it this very judgement: read again it is another one, even where it reads the same.</summary>
    public string Seen => $"{Saw} · {Judgement.Verdict} · {Judgement.Rule} · {At.UtcDateTime:O}";

    public string InWords => $"{What}: {Saw}. {char.ToUpperInvariant(Judgement.Rule[0])}{Judgement.Rule[1..]}";

    /// <summary>What a discrepancy that is written down for it goes back to.</summary>
    public Origin Origin => new(Key, InWords, Judgement.Verdict, Judgement.Source);
}

/// <summary>How a bad judgement was answered.</summary>
public enum AnsweredBy { ReadAgain = 1, OtherLimit, PartReplaced, FixList, SetAside }

/// <summary>A bad judgement set aside by somebody who may sign the inspection. The signed entry carries it.</summary>
/// <param name="Key">The judgement's key.</param>
/// <param name="Seen">The very judgement: read again, it isn't this one any more.</param>
/// <param name="InWords">It, in words.</param>
/// <param name="Reason">Why it may stand.</param>
/// <param name="Reference">By which data: manual, chapter, revision.</param>
/// <param name="Certificate">By which certificate.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record SetAside(string Key, string Seen, string InWords, string Reason, string Reference, string Certificate, Guid By,
    DateTimeOffset At)
{
    public string AsEntered => $"{InWords}. Set aside: {Reason} Ref. {Reference}";
}

/// <summary>A bad judgement as it once stood, remembered until it is answered: taking a value back doesn't make it good.</summary>
/// <param name="Judged">The judgement as it was.</param>
/// <param name="Now">What it was judged to be when it was answered; null while it isn't, or where the part was replaced.</param>
/// <param name="By">How it was answered; null while it isn't.</param>
public sealed record Remembered(Judged Judged, Judged? Now = null, AnsweredBy? By = null)
{
    /// <summary>
    /// The same as it stands once there is another judgement of the same thing. An older reading that comes to light again, because this
    /// one was taken back, is no answer.
    /// </summary>
    public Remembered Against(Judged there) => there.WantsAnswer ? this with { Judged = there }
        : there.At > Judged.At ? this with { Now = there, By = AnsweredBy.ReadAgain }
        : there.At == Judged.At ? this with { Now = there, By = AnsweredBy.OtherLimit }
        : this;
}

/// <summary>One line of what was judged: the judgement, and how it was answered.</summary>
/// <param name="Judged">The judgement.</param>
/// <param name="By">How it was answered; null where it isn't, or wants no answer.</param>
/// <param name="Answer">The answer in words; where there is none, what it takes.</param>
/// <param name="Found">The discrepancy it stands under; null for none.</param>
/// <param name="Aside">The reason it was set aside; null where it wasn't.</param>
public sealed record JudgedLine(Judged Judged, AnsweredBy? By, string Answer, Discrepancy? Found = null, SetAside? Aside = null)
{
    public bool IsUnanswered => By is null && Judged.WantsAnswer;

    /// <summary>
    /// What the signed entry says of it, because the number alone would not bear the signature out; null where nothing has to be said.
    /// </summary>
    public string? AsEntered => By switch
    {
        AnsweredBy.SetAside => Aside!.AsEntered,
        AnsweredBy.OtherLimit => $"{Judged.InWords}. {Answer}",
        _ => null,
    };
}
