using MellowRivet.Core.Discrepancies;
using static MellowRivet.Core.Discrepancies.DiscrepancyClass;

namespace MellowRivet.Web.Demo;

/// <summary>What a drawn picture shows.</summary>
internal enum Subject { Skin = 1, Tube, Hose, Wire, Tyre, Fitting, Glass, Cloth, Page, Around }

/// <summary>An invented finding of the annual in progress.</summary>
internal sealed record Finding(string What, string Zone, string Where, DiscrepancyClass Class, Subject Picture, string? Task = null,
    string? Done = null, bool Grounded = false);

/// <summary>The invented findings of the demo's trainer.</summary>
internal static class DemoFindings
{
    public static readonly (string What, string Zone, string Done)[] Past =
    [
        ("Seat cushion torn at the piping, left", "cabin", "Cover resewn."),
        ("Oil breather tube clamp loose", "engine", "Clamp replaced and tightened, checked after the run."),
        ("Spinner screw missing its washer", "propeller", "Washer fitted, screws checked all round."),
        ("Nose-wheel fairing bracket cracked", "gear", "Bracket replaced from stock."),
        ("Instrument post light out", "cabin", "Lamp replaced, works."),
        ("Elevator tip fairing rubbing", "tail", "Edge trimmed, clearance checked through full travel."),
    ];

    public static readonly Finding[] Today =
    [
        new("Alternator bracket cracked at the lower ear, moves by hand", "engine", "lower left, behind the baffle", Airworthiness,
            Subject.Fitting, "engine-accessories"),
        new("Air box seal hardened, gap of a finger at the rear", "engine", "right side", Recommended, Subject.Hose),
        new("Oil cooler fins bent over a hand's width", "engine", "left front", Watch, Subject.Tube),
        new("Engine mount bushing, upper right: sagged, edge extruded", "engine", "upper right", Recommended, Subject.Fitting),
        new("Primer line clamp missing, line lies on the mount tube", "engine", "behind cylinder 4", Airworthiness, Subject.Hose,
            "engine-hoses", "Clamp fitted with cushion, line re-formed clear of the tube; checked after the run."),
        new("Spinner backplate: hairline at one screw hole, stop-drilled before", "propeller", "screw 7", Watch, Subject.Fitting),
        new("Leading edge nick, tip third, dressed earlier", "propeller", "blade B", DiscrepancyClass.KnownMark, Subject.Tube),
        new("Throttle friction nut stripped", "cabin", "quadrant", Recommended, Subject.Fitting, null, "Nut replaced, friction set."),
        new("Left seat rail: third hole elongated, pin rocks", "cabin", "left rail", Airworthiness, Subject.Fitting, "cabin-seats"),
        new("Windshield crazed in the lower right corner", "cabin", "lower right", Watch, Subject.Glass, "cabin-windows"),
        new("Map light inoperative", "cabin", "overhead", Deferrable, Subject.Wire),
        new("Door seal parted over the latch", "cabin", "right door", Recommended, Subject.Cloth),
        new("Fuel selector placard faded, off position unreadable", "cabin", "centre floor", Airworthiness, Subject.Glass, null,
            "New placard made and fitted, positions checked against the valve."),
        new("Stall warning vane sticks when cold", "left-wing", "leading edge", Airworthiness, Subject.Skin),
        new("Two quarter-turn fasteners on the aileron access cover don't catch", "left-wing", "access cover 4", Recommended, Subject.Skin,
            null, "Springs replaced, both catch."),
        new("Paint blisters along the lap joint, no pitting under the first", "left-wing", "lower skin, rib 6", Watch, Subject.Skin),
        new("Flap inboard hinge pin works out by its own length", "left-wing", "inboard hinge", Airworthiness, Subject.Fitting, null,
            "Pin pushed home, ends crimped by manual 27-50; play measured again."),
        new("Wing walk coating lifting at the root", "right-wing", "root", Recommended, Subject.Cloth),
        new("Fuel cap gasket flattened", "right-wing", "filler", Recommended, Subject.Hose),
        new("Tip light lens cracked and taped", "right-wing", "tip", Recommended, Subject.Glass),
        new("Aileron pulley clicks when turned by hand", "right-wing", "bellcrank bay", Airworthiness, Subject.Fitting),
        new("Bird's nest straw on the rear bulkhead", "tail-cone", "station 140", Recommended, Subject.Cloth, null,
            "Removed, area washed and looked at, no corrosion."),
        new("Static drain cap missing", "tail-cone", "left, low", Airworthiness, Subject.Tube),
        new("Strobe pack cable tied to a control rod guide", "tail-cone", "station 120", Airworthiness, Subject.Wire, null,
            "Cable re-routed to its own clamps, clear through full travel."),
        new("Tailplane tip rib: filler lost, edge open", "tail", "left tip", Recommended, Subject.Skin),
        new("Rudder bottom drain hole blocked", "tail", "bottom", Recommended, Subject.Skin, null, "Opened, water drained, dried."),
        new("Trim indicator reads a division off", "tail", "indicator", Watch, Subject.Wire),
        new("Left main tyre: cord showing across the shoulder", "gear", "left main, outside", Airworthiness, Subject.Tyre, "gear-tyres"),
        new("Nose-leg torque link: play beyond what a hand should feel", "gear", "upper pin", Recommended, Subject.Fitting),
        new("Right brake line rubs the fairing on full lock", "gear", "right leg", Airworthiness, Subject.Hose, "gear-lines"),
    ];
}
