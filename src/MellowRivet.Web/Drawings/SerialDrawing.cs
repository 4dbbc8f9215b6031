using MellowRivet.Core.Bulletins;

namespace MellowRivet.Web.Drawings;

/// <summary>One stretch on the line; an open end runs to the edge.</summary>
public sealed record SerialStretch(double From, double To, bool OpenFrom, bool OpenTo, bool IsGap, string Title);

/// <summary>A mark below the line.</summary>
public sealed record SerialTick(double X, string Text, string Anchor);

/// <summary>
/// The serial ranges of a bulletin as a number line, with one serial number marked on it. Only the series of that serial can be
/// drawn on one line; the others are named beside it.
/// </summary>
public sealed class SerialDrawing
{
    public const double Width = 340;
    private const double Left = 14, Right = Width - 14;

    private SerialDrawing(string fact, SerialMatch match, string serial, double? mark, IReadOnlyList<SerialStretch> stretches,
        IReadOnlyList<SerialTick> ticks, string others) =>
        (Fact, Match, Serial, Mark, Stretches, Ticks, Others) = (fact, match, serial, mark, stretches, ticks, others);

    public string Fact { get; }
    public SerialMatch Match { get; }
    public string Serial { get; }
    public double? Mark { get; }
    public IReadOnlyList<SerialStretch> Stretches { get; }
    public IReadOnlyList<SerialTick> Ticks { get; }

    /// <summary>What of the list isn't drawn: other series, "all".</summary>
    public string Others { get; }

    // As a person calls it: the crankshaft of the engine.
    private string Said => FactName.Read(Fact)?.InWords ?? Fact;

    public string InWords =>
        Serial.Length == 0 ? $"{Said}: not known yet" : $"{Said}: {Serial} " + Match switch
        {
            SerialMatch.In => "is on the list",
            SerialMatch.Doubtful => "may be on the list: read both again",
            _ => "is not on the list",
        };

    /// <summary>A line for each serial list in a rule.</summary>
    public static IEnumerable<SerialDrawing> Of(Rule rule, IFacts facts) =>
        rule.Conditions.Where(condition => condition.Test is IsInSerials)
        .SelectMany(condition => facts.Of(condition.Fact).Values.DefaultIfEmpty("")
            .Select(value => Of(condition.Fact, ((IsInSerials)condition.Test).Ranges, value)));

    public static SerialDrawing Of(string fact, SerialRanges ranges, string value)
    {
        var serial = SerialNumber.Read(value);
        var series = serial?.Series
            ?? ranges.Groups.SelectMany(group => group.Spans).Select(span => (span.From ?? span.To)?.Series)
            .FirstOrDefault(one => one is not null);
        List<(SerialSpan Span, bool Gap)> drawn =
            [.. ranges.Groups.SelectMany(group => group.Spans.Select(span => (span, false))
                .Concat(group.Except.Select(span => (span, true)))).Where(pair => series is not null && Belongs(pair.span, series))];
        var others = string.Join("; ", ranges.Groups.SelectMany(group => group.Spans).Where(span => drawn.All(pair => pair.Span != span))
            .Select(span => span.InWords));
        var figures = drawn.SelectMany(pair => new[] { pair.Span.From?.Figure, pair.Span.To?.Figure }).Append(serial?.Figure)
            .OfType<double>().ToList();
        var match = serial is null ? SerialMatch.Out : ranges.Match(serial);
        if (figures.Count == 0)
            return new(fact, match, value, null, [], [], others);
        var (low, high) = (figures.Min(), figures.Max());
        var room = Math.Max((high - low) * 0.12, 1);
        double At(double figure) => Math.Round(Left + (figure - low + room) / (high - low + 2 * room) * (Right - Left), 1);
        var stretches = drawn.Select(pair => new SerialStretch(pair.Span.From?.Figure is { } from
            ? At(from)
            : 0, pair.Span.To?.Figure is { } to
            ? At(to)
            : Width, pair.Span.From is null, pair.Span.To is null, pair.Gap, (pair.Gap ? "except " : "") + pair.Span.InWords)).ToList();
        return new(fact, match, value, serial?.Figure is { } own
            ? At(own)
            : null, stretches, Spread(drawn.Where(pair => !pair.Gap).SelectMany(pair => new[] { pair.Span.From, pair.Span.To })
                .OfType<SerialNumber>().Distinct().Where(end => end.Figure is not null)
                .Select(end => (At(end.Figure!.Value), end.Text))), others);
    }

    private static bool Belongs(SerialSpan span, SerialNumber series) =>
        (span.From ?? span.To) is { Figure: not null } end && end.Series == series;

    // Labels that would run into one another are left out; the words beside the line have them all.
    private static List<SerialTick> Spread(IEnumerable<(double X, string Text)> ends)
    {
        List<SerialTick> ticks = [];
        var taken = double.MinValue;
        foreach (var (x, text) in ends.OrderBy(end => end.X))
        {
            var wide = text.Length * 7.2;
            var anchor = x < Left + wide / 2 ? "start" : x > Right - wide / 2 ? "end" : "middle";
            var from = anchor switch { "start" => x, "end" => x - wide, _ => x - wide / 2 };
            if (from < taken + 4)
                continue;
            ticks.Add(new(x, text, anchor));
            taken = from + wide;
        }
        return ticks;
    }
}
