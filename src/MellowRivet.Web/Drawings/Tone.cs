using MellowRivet.Core.Judgements;

namespace MellowRivet.Web.Drawings;

public static class Tone
{
    /// <summary>The tone of a judgement's panel: red, amber, green or plain.</summary>
    public static string Of(Verdict verdict) => verdict switch
    {
        Verdict.Good => "good",
        Verdict.Reject => "bad",
        Verdict.Unknown => "plain",
        _ => "warn",
    };
}
