using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Pages.Walk.Costs;

/// <summary>What one line takes, in full, as it is sent: a part or none to a row.</summary>
public sealed class LineForm
{
    /// <summary>Empty rows for parts that the form offers.</summary>
    public const int EmptyRows = 3;

    public string? Mechanic { get; set; }
    public string? Inspector { get; set; }
    public string? Assistant { get; set; }
    public List<string?> Quantity { get; set; } = [];
    public List<string?> Unit { get; set; } = [];
    public List<string?> What { get; set; } = [];
    public List<string?> Number { get; set; } = [];
    public List<string?> Price { get; set; } = [];
    public List<string?> Lead { get; set; } = [];
    public List<string?> Shelf { get; set; } = [];
    public string? OutsideWhat { get; set; }
    public string? OutsidePrice { get; set; }
    public string? OutsideDays { get; set; }
    public string? WaitsFor { get; set; }
    public DateOnly? By { get; set; }
    public string? Cure { get; set; }
    public string? Place { get; set; }
    public string? After { get; set; }

    /// <summary>An estimate in the form's fields, with empty rows behind its parts.</summary>
    public static LineForm Of(Estimate? estimate)
    {
        var (now, parts) = (estimate ?? Estimate.Nothing, estimate?.Parts ?? []);
        string? Hours(Skill skill) => now.Labour.FirstOrDefault(labour => labour.Skill == skill)?.Hours.AsTyped;
        List<string?> Rows(Func<PartNeeded, string?> field) => [.. parts.Select(field), .. Enumerable.Repeat<string?>(null, EmptyRows)];
        return new()
        {
            Mechanic = Hours(Skill.Mechanic), Inspector = Hours(Skill.Inspector), Assistant = Hours(Skill.Assistant),
            Quantity = Rows(part => part.Quantity.ToString("0.##", CultureInfo.InvariantCulture)), Unit = Rows(part => part.Unit),
            What = Rows(part => part.What), Number = Rows(part => part.Number), Price = Rows(part => part.Price?.AsTyped),
            Lead = Rows(part => part.LeadDays?.ToString(CultureInfo.InvariantCulture)), Shelf = Rows(part => part.OnShelf ? "shelf"
                : "order"),
            OutsideWhat = now.Outside?.What, OutsidePrice = now.Outside?.Price?.AsTyped,
            OutsideDays = now.Outside?.Days?.ToString(CultureInfo.InvariantCulture), WaitsFor = now.WaitsFor, By = now.PartsBy,
            Cure = now.CureHours?.ToString("0.##", CultureInfo.InvariantCulture), Place = now.Place,
            After = string.Join(' ', now.After ?? []),
        };
    }

    /// <summary>The estimate, or what is wrong with it as typed.</summary>
    /// <param name="lines">Keys of the lines that there are.</param>
    public (Estimate? Estimate, Refusal? Refusal) Read(IReadOnlyCollection<string> lines)
    {
        List<Labour> labour = [];
        foreach (var (skill, typed) in new[] { (Skill.Mechanic, Mechanic), (Skill.Inspector, Inspector), (Skill.Assistant, Assistant) })
        {
            var (hours, problem) = Estimate.ReadHours(typed);
            if (problem is not null)
                return (null, new("hours", problem));
            if (hours is { } read)
                labour.Add(new(skill, read));
        }
        List<PartNeeded> parts = [];
        for (var row = 0; row < What.Count; row++)
        {
            var (part, problem) = Part(row);
            if (problem is not null)
                return (null, new("parts", $"Row {row + 1}: {problem}"));
            if (part is not null)
                parts.Add(part);
        }
        var (price, wrong) = Estimate.ReadPrice(OutsidePrice, "The price");
        if (wrong is not null || !Whole(OutsideDays, out var days))
            return (null, new("outside", wrong ?? "Days as a whole number from 0 up."));
        var outside = price is null && days is null && string.IsNullOrWhiteSpace(OutsideWhat) ? null
            : new OutsideWork(OutsideWhat?.Trim() ?? "", price, days);
        var cure = MeasureText.Value(Cure, Core.Measures.Unit.Hour);
        if (TypedNumber.IsNone(Cure, cure))
            return (null, new("cure", "Hours to cure as a number: the can or the tube says."));
        List<string> after = [];
        foreach (var word in (After ?? "").Split([' ', ',', ';'], StringSplitOptions.RemoveEmptyEntries))
        {
            var key = int.TryParse(word, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? $"{number:00}" : word;
            if (!lines.Contains(key))
                return (null, new("after", $"“{word}” is no number of this list, or this line’s own."));
            after.Add(key);
        }
        return (new(labour, parts, outside, WaitsFor?.Trim() ?? "", By, (decimal?)cure, Place?.Trim() ?? "",
            after.Count == 0 ? null : [.. after.Distinct()]), null);
    }

    private (PartNeeded? Part, string? Problem) Part(int row)
    {
        string At(List<string?> column) => row < column.Count ? column[row]?.Trim() ?? "" : "";
        if (new[] { At(Quantity), At(What), At(Number), At(Price), At(Lead) }.All(field => field.Length == 0))
            return (null, null);
        if (At(What).Length == 0)
            return (null, "say what part it is.");
        var many = At(Quantity).Length == 0 ? 1 : TypedNumber.Parse(At(Quantity));
        if (many is not (> 0 and <= (double)Estimate.MostQuantity))
            return (null, $"how many, as a number above 0: “{At(Quantity)}” isn’t.");
        var (price, problem) = Estimate.ReadPrice(At(Price), "The price");
        if (problem is not null)
            return (null, problem);
        if (!Whole(At(Lead), out var days))
            return (null, "days until it comes, as a whole number from 0 up.");
        return (new(At(What), At(Number), (decimal)many.Value, At(Unit), price, days, At(Shelf) == "shelf"), null);
    }

    private static bool Whole(string? typed, out int? number)
    {
        var read = TypedNumber.Parse(typed);
        number = read is >= 0 and <= Estimate.LongestWait && read % 1 == 0 ? (int)read : null;
        return number is not null || string.IsNullOrWhiteSpace(typed);
    }
}
