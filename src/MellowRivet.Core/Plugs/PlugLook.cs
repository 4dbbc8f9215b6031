using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Plugs;

/// <summary>What a firing end looks like, by our own drawn pictures.</summary>
public enum PlugLook { Normal = 1, Sooty, OilWet, LeadFouled, White, WornOval, Cracked, Bridged }

/// <summary>What the looks say. Common practice.</summary>
public static class PlugLooks
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>The name beside the picture.</summary>
    public static string InWords(this PlugLook look) => look switch
    {
        PlugLook.Normal => "normal, dry and tan",
        PlugLook.Sooty => "sooty, black and dry",
        PlugLook.OilWet => "wet with oil",
        PlugLook.LeadFouled => "lead balls",
        PlugLook.White => "white or blistered",
        PlugLook.WornOval => "electrodes worn oval",
        PlugLook.Cracked => "insulator cracked",
        _ => "gap bridged",
    };

    /// <summary>The plug judged by its look, and what that says of its cylinder.</summary>
    public static Judgement Judge(this PlugLook look) => look switch
    {
        PlugLook.Normal => new(Verdict.Good, "Firing end dry, tan to light grey", Practice, null, "The cylinder burns as it should."),
        PlugLook.Sooty => new(Verdict.Watch, "Soot: rich", Practice, null,
            "Clean it. Idle mixture, a leaking primer, long idling: look at its row and its neighbours."),
        PlugLook.OilWet => new(Verdict.Watch, "Wet with oil", Practice, null,
            "Clean it. Oil passes the rings or a guide: see this cylinder's compression and oil use. A bottom plug after "
            + "standing is less of a worry."),
        PlugLook.LeadFouled => new(Verdict.Watch, "Lead balls", Practice, null,
            "Pick or vibrate the lead out. Long cool running: lean on the ground, and rotate."),
        PlugLook.White => new(Verdict.Watch, "White or blistered: lean or hot", Practice, null,
            "Look for an intake leak at this cylinder, the heat range of the plug, the timing; look into the cylinder."),
        PlugLook.WornOval => PlugJudge.Condition(new(null, null, Wear: ElectrodeWear.Oval)),
        PlugLook.Cracked => PlugJudge.Condition(new(null, null, InsulatorCracked: true)),
        _ => new(Verdict.Watch, "Gap bridged", Practice, null,
            "Clean it; it did not fire. Look what the bridge is: lead is picked out, metal is a question to the cylinder."),
    };

    /// <summary>The look of a plug that its hole fouls: soot, oil, lead or a bridge.</summary>
    public static bool IsFouled(this PlugLook look) => look is PlugLook.Sooty or PlugLook.OilWet or PlugLook.LeadFouled or PlugLook.Bridged;
}
