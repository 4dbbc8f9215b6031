namespace MellowRivet.Core.Fleet;

/// <summary>A reading that would be taken in.</summary>
/// <param name="Line">Its line in the file.</param>
/// <param name="Meter">The meter it is of.</param>
/// <param name="On">The day.</param>
/// <param name="Shown">What it showed.</param>
public sealed record PlannedReading(int Line, Meter Meter, DateOnly On, decimal Shown)
{
    public decimal Total => Shown + Meter.Offset;
}

/// <summary>A meter that reads less than before: replaced, or a mistake. A person says which.</summary>
/// <param name="Line">The first line that reads less.</param>
/// <param name="Kind">The meter.</param>
/// <param name="Words">The question.</param>
public sealed record MeterDrop(int Line, MeterKind Kind, string Words);

/// <summary>What a whole file comes to, before any of it is taken in.</summary>
/// <param name="Planned">Readings that are new.</param>
/// <param name="Duplicates">Readings that are on file already, or stand twice.</param>
/// <param name="Problems">Lines that can't be taken, in words.</param>
/// <param name="Drops">Meters that seem to have been replaced.</param>
public sealed record TimesCheck(IReadOnlyList<PlannedReading> Planned, int Duplicates, IReadOnlyList<string> Problems,
    IReadOnlyList<MeterDrop> Drops)
{
    /// <summary>Nothing is wrong and something is new.</summary>
    public bool MayTake => Problems.Count == 0 && Drops.Count == 0 && Planned.Count > 0;
}

/// <summary>Checks a file of meter readings against an aircraft as a whole, and takes it in as a whole.</summary>
public static class TimesImport
{
    private const int LongestName = 60;

    /// <param name="file">The file.</param>
    /// <param name="columns">Which column holds what.</param>
    /// <param name="aircraft">The aircraft with all its readings.</param>
    /// <param name="replacedAt">Lines at which a person said that a new meter began, at zero.</param>
    /// <param name="today">No reading is later.</param>
    public static TimesCheck Check(TimesFile file, TimesColumns columns, Aircraft aircraft, IReadOnlyCollection<int> replacedAt,
        DateOnly today)
    {
        List<string> problems = [];
        if (columns.Meters.Count == 0)
            problems.Add("Say which column holds what a meter shows.");
        var days = new List<(int Line, DateOnly On, IReadOnlyList<string> Cells)>();
        foreach (var row in file.Rows)
        {
            var cell = columns.Date < row.Cells.Count ? row.Cells[columns.Date] : "";
            if (TimesFile.Day(cell, columns.DateFormat) is not { } day)
                problems.Add(
                    $"Line {row.Line}: “{(cell.Length > 24 ? cell[..24] + "…" : cell)}” is no day written as {columns.DateFormat}.");
            else if (day > today)
                problems.Add($"Line {row.Line}: {day:yyyy-MM-dd} is still to come.");
            else
                days.Add((row.Line, day, row.Cells));
        }

        List<PlannedReading> planned = [];
        List<MeterDrop> drops = [];
        var duplicates = 0;
        var nextMeter = aircraft.Meters.Count + 1;
        foreach (var (kind, column) in columns.Meters.OrderBy(pair => pair.Key))
        {
            var shown = new List<(int Line, DateOnly On, decimal Shown)>();
            foreach (var (line, on, cells) in days)
            {
                var cell = column < cells.Count ? cells[column] : "";
                if (cell.Length == 0)
                    continue;
                var (value, wrong) = TimesFile.Figure(cell);
                if (wrong is not null)
                    problems.Add($"Line {line}: {wrong}.");
                else if (!kind.CountsHours() && value != decimal.Truncate(value!.Value))
                    problems.Add($"Line {line}: {kind.InWords()} come in whole numbers, not {value}.");
                else
                    shown.Add((line, on, value!.Value));
            }
            duplicates += Plan(kind, [.. shown.OrderBy(reading => reading.On).ThenBy(reading => reading.Line)], aircraft, replacedAt,
                ref nextMeter, planned, problems, drops);
        }
        return new([.. planned.OrderBy(reading => reading.On)], duplicates, [.. problems.Take(50)], drops);
    }

    /// <summary>Takes in what a check planned.</summary>
    /// <param name="aircraft">The aircraft, with all its readings.</param>
    /// <param name="check">What its file comes to.</param>
    /// <param name="name">What the file is called: the source of its readings.</param>
    /// <returns>Why it can't be, or null.</returns>
    public static Refusal? Take(Aircraft aircraft, TimesCheck check, string? name)
    {
        if (!check.MayTake)
            return new("file", "There are questions left: nothing was taken in.");
        aircraft.Take(check.Planned, NameOf(name));
        return null;
    }

    // As long as a line of a list holds, and on one line.
    private static string NameOf(string? name)
    {
        var plain = string.Concat((name ?? "").Select(letter => char.IsControl(letter) ? ' ' : letter));
        return plain.Length > LongestName ? plain[..LongestName] + "…" : plain.Length == 0 ? "a file" : plain;
    }

    private static int Plan(MeterKind kind, List<(int Line, DateOnly On, decimal Shown)> shown, Aircraft aircraft,
        IReadOnlyCollection<int> replacedAt,
        ref int nextMeter, List<PlannedReading> planned, List<string> problems, List<MeterDrop> drops)
    {
        var onFile = aircraft.MeterReadings.Where(reading => reading.Kind == kind).OrderBy(reading => reading.On)
            .ThenBy(reading => reading.Total).ToList();
        var known = onFile.Select(reading => (reading.On, reading.Shown)).ToHashSet();
        var fileDays = onFile.Select(reading => reading.On).ToList();
        Meter? replacement = null, first = null;
        PlannedReading? last = null;
        var duplicates = 0;
        foreach (var (line, on, value) in shown)
        {
            if (!known.Add((on, value)))
            {
                duplicates++;
                continue;
            }
            // The last reading on file up to that day, and the first after it.
            var at = UpperBound(fileDays, on);
            var (before, after) = (at > 0 ? onFile[at - 1] : null, at < onFile.Count ? onFile[at] : null);
            var meter = replacement ?? aircraft.MeterOn(kind, on) ?? (first ??= new(nextMeter++, kind, on, 0));
            var highest = Highest(before, last);
            if (replacedAt.Contains(line) && highest is { } until)
                meter = replacement = new(nextMeter++, kind, on, until.Total);
            var reading = new PlannedReading(line, meter, on, value);
            if (highest is { } previous && reading.Total < previous.Total)
            {
                drops.Add(new(line, kind,
                    $"Line {line}: the {kind.InWords()} reads {value:0.0##} on {on:yyyy-MM-dd}, less than the {previous.Shown:0.0##} "
                    + $"of {previous.On:yyyy-MM-dd}. Was the meter replaced?"));
                if (drops.Count > 20)
                    return duplicates;
                // Go on as if it was, so that one drop is one question.
                meter = replacement = new(nextMeter++, kind, on, previous.Total);
                reading = reading with { Meter = meter };
            }
            else if (highest is { } lastRead && kind.CountsHours()
                && reading.Total - lastRead.Total > 24 * (on.DayNumber - lastRead.On.DayNumber + 1))
                problems.Add(
                    $"Line {line}: {reading.Total - lastRead.Total:0.#} h since {lastRead.On:yyyy-MM-dd} are more than those days hold.");
            if (after is not null && reading.Total > after.Total)
                problems.Add(
                    $"Line {line}: {value:0.0##} on {on:yyyy-MM-dd} is more than the "
                    + $"{after.Shown:0.0##} on file for {after.On:yyyy-MM-dd}.");
            planned.Add(reading);
            last = reading;
        }
        return duplicates;
    }

    private static (DateOnly On, decimal Shown, decimal Total)? Highest(MeterReading? onFile,
        PlannedReading? planned) => (onFile, planned) switch
    {
        (null, null) => null,
        (not null, null) => (onFile.On, onFile.Shown, onFile.Total),
        (null, not null) => (planned.On, planned.Shown, planned.Total),
        _ => onFile.Total > planned.Total ? (onFile.On, onFile.Shown, onFile.Total) : (planned.On, planned.Shown, planned.Total),
    };

    private static int UpperBound(List<DateOnly> days, DateOnly day)
    {
        var (low, high) = (0, days.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            (low, high) = days[middle] <= day ? (middle + 1, high) : (low, middle);
        }
        return low;
    }
}
