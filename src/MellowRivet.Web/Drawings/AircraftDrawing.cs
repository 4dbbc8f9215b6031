using MellowRivet.Core.Fleet;

namespace MellowRivet.Web.Drawings;

/// <summary>One zone's outline on the drawing from above, nose up, in a box of 300 × 300, with the place for its mark.</summary>
public sealed record ZoneShape(string ZoneKey, string Path, double StateX, double StateY, bool Dashed = false);

/// <summary>The aircraft from above, drawn from its configuration.</summary>
public static class AircraftDrawing
{
    /// <summary>The zones' shapes, back to front.</summary>
    public static IReadOnlyList<ZoneShape> Zones(Configuration build)
    {
        var twin = build.Engines > 1;
        List<ZoneShape> shapes =
        [
            new("left-wing", "M134 108 L24 118 Q14 120 14 130 L16 150 L134 162 Z", 62, 136),
            new("right-wing", "M166 108 L276 118 Q286 120 286 130 L284 150 L166 162 Z", 238, 136),
            new("tail-cone", "M133 172 H167 L158 240 H142 Z", 150, 204),
            new("tail",
                "M142 238 L100 246 Q92 248 92 256 L94 270 L144 272 L146 282 H154 L156 272 L206 270 L208 256 Q208 248 200 246 L158 238 Z",
                112, 258),
            .. twin
                ? new ZoneShape[]
                {
                    new("engine-left", "M76 84 H94 L98 132 H72 Z", 85, 106), new("engine-right", "M206 84 H224 L228 132 H202 Z", 215, 106),
                    new("propeller-left", "M52 78 Q85 72 118 78 Q85 82 52 78 Z", 60, 66),
                    new("propeller-right", "M182 78 Q215 72 248 78 Q215 82 182 78 Z", 240, 66),
                }
                : [new("engine", "M137 52 H163 L168 98 H132 Z", 150, 76),
                    new("propeller", "M98 44 Q150 34 202 44 Q150 52 98 44 Z", 112, 30)],
            new("cabin", "M132 98 H168 Q172 134 168 172 H132 Q128 134 132 98 Z", 150, 152),
        ];
        if (twin)
            shapes.Add(new("cabin", "M137 56 Q150 34 163 56 L168 98 H132 Z", 150, 72));
        var third = build.Gear == Gear.NoseWheel ? "M147 84 h6 v14 h-6 Z" : "M147 270 h6 v12 h-6 Z";
        shapes.Add(new("gear", $"M104 136 h7 v18 h-7 Z M189 136 h7 v18 h-7 Z {third}", 107, 172, Dashed: true));
        return shapes;
    }

    /// <summary>
    /// Lines that say how the aircraft is built but are no zone: windows, hinge lines, the wing across the cabin of a high-wing, struts.
    /// </summary>
    public static IReadOnlyList<string> Details(Configuration build)
    {
        List<string> lines =
        [
            "M30 147 L78 152 M222 152 L270 147", // ailerons
            "M84 153 L128 158 M172 158 L216 153", // flaps
            "M102 262 L144 264 M156 264 L198 262", // elevator
            "M150 236 V282", // fin
        ];
        lines.AddRange(build.Wing == Wing.High
            ? ["M134 108 L166 108 M134 162 L166 162", "M138 168 L96 128 M162 168 L204 128"]
            : ["M138 112 H162 L160 128 H140 Z", build.Seats > 1 ? "M139 133 H161 V146 H139 Z" : "M141 134 H159"]);
        if (build.Fabric)
            // the ribs show
            lines.Add(
                "M30 124 V146 M50 122 V149 M70 119 V151 M90 117 V154 M110 114 V156 M190 114 V156 M210 117 V154 M230 119 "
                + "V151 M250 122 V149 M270 124 V146");
        if (build.FoldingWing)
            lines.Add("M98 107 V164 M94 107 V164 M202 107 V164 M206 107 V164"); // the fold, either side
        if (build.Retractable)
            lines.Add("M112 140 h18 v10 h-18 Z M170 140 h18 v10 h-18 Z"); // the wells the wheels go into
        return lines;
    }
}
