using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Exchange;

/// <summary>
/// What every page relies on and a file from elsewhere could break: no day is to come, ids are their
/// own, and no part sits on itself.
/// </summary>
internal static class FileSoundness
{
    private static readonly DateOnly FirstDay = new(1900, 1, 1);

    public static string? FaultOf(AircraftFile file, DateOnly today)
    {
        if (Days(file).FirstOrDefault(day => day < FirstDay || day > today) is var wrong && wrong != default)
            return $"{wrong:yyyy-MM-dd} is before 1900 or still to come.";
        var ids = file.Due.Select(item => item.Id).Concat(file.Books.Select(book => book.Id))
            .Concat(file.Books.SelectMany(book => book.Entries.Select(entry => entry.Id))).ToList();
        if (ids.Distinct().Count() != ids.Count)
            return "A due item, book or entry has another’s id.";
        if (file.Meters.Any(meter => Math.Abs(meter.Offset) >= 1_000_000))
            return "A meter’s offset is out of range.";
        if (file.Limits.FirstOrDefault(limit => Unit.Find(limit.UnitSymbol) is null || limit.Low > limit.High) is { } limit)
            return $"The limit of {limit.Measure} has a unit that this program doesn’t know, or its ends the wrong way round.";
        if ((file.CableTables ?? []).Select(table => table.Fault()).FirstOrDefault(fault => fault is not null) is { } table)
            return $"A table of cable tension: {table.Message}";
        if ((file.MajorWork ?? []).Select(work => Fleet.MajorWork.Read(work.Id, work.Kind, work.On, work.What, work.Form, today).Refusal)
            .FirstOrDefault(fault => fault is not null) is { } major)
            return $"A major repair or alteration: {major.Message}";
        if (file.Due.SelectMany(item => item.Done)
            .Any(done => new[] { done.Hours, done.WasDueHours, done.Landings, done.Cycles }.Any(count => count is < 0 or >= 1_000_000))
            || file.Due.Any(item => item.LabourHours is < 0 or >= 10_000))
            return "A due item was done at hours or counts out of range.";
        return Fitted(file);
    }

    // A part is in one place at a time, and what it sits on ends at the airframe.
    private static string? Fitted(AircraftFile file)
    {
        if (file.Parts.FirstOrDefault(part => part.Stays.Count(stay => stay.RemovedAt is null) > 1) is { } twice)
            return $"Part {twice.SerialNumber} is fitted twice.";
        var under = file.Parts.SelectMany(part => part.Stays.Select(stay => (part.Id, stay.On))).ToLookup(pair => pair.Id, pair => pair.On);
        foreach (var part in file.Parts)
        {
            var seen = new HashSet<Guid>();
            var next = new Queue<Guid>([part.Id]);
            while (next.TryDequeue(out var id))
                foreach (var on in under[id].OfType<Guid>())
                {
                    if (on == part.Id)
                        return $"Part {part.SerialNumber} sits on itself.";
                    if (seen.Add(on))
                        next.Enqueue(on);
                }
        }
        return null;
    }

    private static IEnumerable<DateOnly> Days(AircraftFile file) => file.Meters.Select(meter => (DateOnly?)meter.FittedOn)
        .Concat(file.Readings.Select(reading => (DateOnly?)reading.On))
        .Concat(file.Parts.SelectMany(part => part.Overhauls.Select(done => (DateOnly?)done.On)
            .Concat(part.Stays.SelectMany(stay => new[] { stay.InstalledOn, stay.RemovedOn })).Append(part.MadeOn)))
        .Concat(file.Due.SelectMany(item => item.Done.Select(done => done.On)))
        .Concat(file.Books.SelectMany(book => book.Entries.Select(entry => (DateOnly?)entry.On).Append(book.FirstOn).Append(book.LastOn)))
        .Concat((file.Bulletins ?? []).SelectMany(one => one.Done.Select(done => (DateOnly?)done.On).Append(one.DecidedOn)))
        .Concat((file.Facts ?? []).Select(fact => (DateOnly?)fact.ReadOn))
        .Concat(file.ExplainedGaps.SelectMany(gap => new DateOnly?[] { gap.From, gap.To }))
        .OfType<DateOnly>();
}
