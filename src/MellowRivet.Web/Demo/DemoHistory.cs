using System.Collections.Concurrent;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Hosting;

namespace MellowRivet.Web.Demo;

/// <summary>Writes the demo's past and present through Core, as the pages would, but at other times than now.</summary>
internal sealed class DemoHistory(IServiceProvider services, IReadOnlyDictionary<string, Person> people)
{
    /// <summary>
    /// The day the demo's days were written for: what happened long ago moves with the demo's today, and keeps its distance.
    /// </summary>
    private static readonly DateOnly WrittenFor = new(2026, 11, 25);

    private readonly ConcurrentDictionary<(Subject, int), Task<Photo>> pictures = [];
    // One picture at a time: the other half of the machine writes the past meanwhile.
    private readonly TaskFactory easel = new(new ConcurrentExclusiveSchedulerPair().ExclusiveScheduler);
    private readonly PhotoFiles photos = services.GetRequiredService<PhotoFiles>();

    /// <summary>The shop's time.</summary>
    public TimeProvider Clock { get; } = services.GetRequiredService<TimeProvider>();

    public RivetDb Db { get; } = services.GetRequiredService<RivetDb>();
    public Shelf Shelf { get; } = services.GetRequiredService<Shelf>();
    public DateTimeOffset Now { get; } = services.GetRequiredService<TimeProvider>().GetUtcNow();
    public DateOnly Today { get; } = services.GetRequiredService<TimeProvider>().Today();

    /// <summary>An hour of one of the shop's days, so many days from today.</summary>
    public DateTimeOffset At(int days, int hour) => Clock.At(Today.AddDays(days), new(hour, 0));

    /// <summary>A day as it was written, moved with the demo's today.</summary>
    public DateOnly Written(int year, int month, int day) => Moved(new(year, month, day));

    public DateOnly Moved(DateOnly written) => written.AddDays(Today.DayNumber - WrittenFor.DayNumber);

    /// <summary>How the demo's shop works.</summary>
    public static HouseRules House { get; } = new(SeparateInspector.AirworthinessItems, LabourRate: 95,
        Name: "Hob & Daughters, Quillmoor Field", Places: "stand 2, hoist 1");

    /// <summary>The shop's tools.</summary>
    public required IReadOnlyList<Tool> Tools { get; init; }

    /// <summary>A torque pulled with the first wrench in calibration whose scale has it, as its sticker read on that day.</summary>
    public WrenchUsed Pulled(double torque, Unit unit, DateTimeOffset at)
    {
        var used = Tools.Select(tool => tool.Pull(torque, unit, Today).Used).First(used => used is not null)!;
        // Calibrated every year.
        while (used.CalibratedUntil.AddYears(-1) >= Clock.DayOf(at))
            used = used with { CalibratedUntil = used.CalibratedUntil.AddYears(-1) };
        return used;
    }

    public IReadOnlyList<Worksheet> Worksheets(params string[] keys) =>
        [.. keys.Select(key => Shelf.Worksheets.Single(sheet => sheet.Key == key))];

    public Person Person(string signInName) => people[signInName];

    /// <summary>Everybody in the shop, as a signature names them.</summary>
    public IReadOnlyDictionary<Guid, Person> ById { get; } = people.Values.ToDictionary(person => person.Id);

    /// <summary>
    /// Answers every task as good, with readings near the middle of their limits. The seed moves each a little from year to
    /// year; where a value is said, it is that one.
    /// </summary>
    public void AnswerAll(Inspection inspection, Aircraft aircraft, DateTimeOffset at, Person by, int seed,
        Func<InspectionTask, bool>? only = null, Func<InspectionTask, double?>? value = null)
    {
        foreach (var task in inspection.Walk.Where(task => task.Verdict == TaskVerdict.NotYet && (only?.Invoke(task) ?? true)).ToList())
        {
            if (inspection.AskedBy(task) is not null)
            {
                DemoEngineStation.FillIn(inspection, aircraft, task, by.Id, at);
                if (task.Verdict != TaskVerdict.NotYet)
                    continue;
            }
            var conditions = new ReadingConditions(Celsius: task.Measure?.Method == MeasureMethod.CableTension ? 11 + seed % 3 * 4 : null);
            if (task.Measure is { } measure && TaskJudge.BandFor(task, aircraft, conditions.Celsius) is { } band)
            {
                if (band.Low is null && band.High is null)
                {
                    inspection.Answer(task, TaskVerdict.NotApplicable, "no such instrument or limit on this aircraft", null, by.Id, at);
                    continue;
                }
                var read = value?.Invoke(task) ?? Middle(band, seed + task.Order);
                if (measure.Method == MeasureMethod.Torque)
                    conditions = new(Wrench: Pulled(read, band.Unit, at));
                inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, task.ComponentId, measure.Kind, task.ZoneKey, read, band.Unit,
                    conditions, inspection.TimeInService, at, by.Id)
                { InspectionId = inspection.Id, TaskId = task.Id });
            }
            inspection.Answer(task, NotFitted(task)
                ? TaskVerdict.NotApplicable
                : TaskVerdict.Good, "not fitted", inspection.JudgementAt(task, aircraft), by.Id, at);
        }
    }

    /// <summary>The looks of zones: dirty, cleaned and, where wanted, looked at clean.</summary>
    public static void LookAt(Inspection inspection, DateTimeOffset at, Person by, bool second, Func<ZoneLook, bool>? only = null)
    {
        foreach (var (zone, index) in inspection.Looks.Where(zone => only?.Invoke(zone) ?? true).Select((zone, index) => (zone, index))
            .ToList())
        {
            inspection.Looked(zone.ZoneKey, LookStep.First, by.Id, at.AddMinutes(index * 6));
            inspection.Looked(zone.ZoneKey, LookStep.Cleaned, by.Id, at.AddMinutes(70 + index * 9));
            if (second)
                inspection.Looked(zone.ZoneKey, LookStep.Second, by.Id, at.AddMinutes(190 + index * 9));
        }
    }

    /// <summary>A second person inspects what waits for one.</summary>
    public static void InspectAll(Inspection inspection, DateTimeOffset at, Person inspector)
    {
        foreach (var task in inspection.Walk.Where(task => SecondPerson.Wanted(inspection.House, inspection, task)).ToList())
            task.Inspect(inspector, at);
        foreach (var found in inspection.Discrepancies.Where(found => SecondPerson.Wanted(inspection.House, found)).ToList())
            found.Inspect(inspector, at);
    }

    /// <summary>A reading each fortnight between two that are on file, more in summer than in winter.</summary>
    public static void Fly(Aircraft aircraft, DateOnly from, decimal fromHours, DateOnly to, decimal toHours, int seed)
    {
        var days = Enumerable.Range(1, (to.DayNumber - from.DayNumber) / 14).Select(step => from.AddDays(step * 14)).Where(day => day < to)
            .ToList();
        var weights = days.Append(to)
            .Select((day, index) => 1.6 - Math.Cos(day.DayOfYear / 365.0 * 2 * Math.PI) + 0.25 * ((seed * 7 + index * 5) % 4)).ToList();
        var flown = 0.0;
        foreach (var (day, weight) in days.Zip(weights))
        {
            flown += weight;
            aircraft.ReadMeter(aircraft.TimeBasis, day,
                Math.Round(fromHours + (toHours - fromHours) * (decimal)(flown / weights.Sum()), 1), "TB");
        }
    }

    /// <summary>Fits a part with a number and a history.</summary>
    public static Component Fit(Aircraft aircraft, ComponentKind kind, string position, string part, string serial, decimal at,
        DateOnly? made, Guid? on = null, string name = "")
    {
        var component = new Component(Guid.CreateVersion7(), kind, part, serial);
        component.Identify(part, serial, name, made);
        aircraft.Install(component, position, new Hours(at), new Hours(0), on);
        return component;
    }

    public LastDone Done(int days, decimal hours, string reference) => new(Today.AddDays(days), hours, null, null, null, reference);

    /// <summary>Follows what the shelf offers; where it hangs on several parts, each was done at its own time.</summary>
    public void Follow(Aircraft aircraft, string starter, params LastDone[] done)
    {
        var items = Shelf.DueStarters.Single(offered => offered.Key == starter).For(aircraft).ToList();
        for (var index = 0; index < items.Count; index++)
            Follow(aircraft, items[index], done.Length == 0 ? [] : [done[Math.Min(index, done.Length - 1)]]);
    }

    public void Follow(Aircraft aircraft, DueItem item, params LastDone[] done)
    {
        foreach (var time in done)
            if (item.SetDone(time, Today) is { } refusal)
                throw new InvalidOperationException($"{aircraft.Registration}, {item.What}: {refusal.Message}");
        Db.DueItems.Add(item);
    }

    /// <summary>Signs, and saves all of it.</summary>
    public async Task SignAsync(Inspection inspection, Aircraft aircraft, Person by, DateTimeOffset at, CancellationToken stop)
    {
        var shop = Shelf.Weigh(aircraft.Category, ById, Clock);
        var certificate = shop.Pack.MaySign(by, inspection.Kind, aircraft, shop.Today).By
            ?? throw new InvalidOperationException($"{by.Name} can't sign the demo's {inspection.Kind}.");
        var on = Clock.DayOf(at);
        Desk.Seal(Db, new(inspection, aircraft, shop, Db.OwnDue(aircraft, on), on, Clock), new(by, certificate), at);
        await Db.SaveChangesAsync(stop);
        // What is signed is done with: only the aircraft is worked on further.
        Db.ChangeTracker.Clear();
        Db.Attach(aircraft);
    }

    /// <summary>Takes in one of the logs that ship with the product.</summary>
    public async Task LogAsync(string sample, Guid aircraftId, Guid engineId, DateTimeOffset at, CancellationToken stop)
    {
        var (sha, columns, flights) = await ReadLogAsync(sample, stop);
        Db.EngineLogs.Add(new(Guid.CreateVersion7(), aircraftId, engineId, sample, sha, columns, flights, Person("ines").Id, at));
    }

    public async Task<(string Sha, LogColumns Columns, IReadOnlyList<LogFlight> Flights)> ReadLogAsync(string sample,
        CancellationToken stop)
    {
        await using var content = LogFiles.OpenSample(sample);
        var files = services.GetRequiredService<LogFiles>();
        var sha = (await files.TakeInAsync(content, stop)).Sha256!;
        var file = LogFile.Read(files.Read(sha)!).File!;
        var columns = file.Guess();
        return (sha, columns, EngineLog.Read(file, columns).Flights);
    }

    /// <summary>
    /// A drawn picture, taken in as if it came from a camera. Asking for one before it is wanted has it drawn
    /// while other things are written.
    /// </summary>
    public Task<Photo> PictureAsync(Subject subject, int seed, CancellationToken stop) =>
        pictures.GetOrAdd((subject, seed), _ => easel.StartNew(() => DrawAsync(subject, seed, stop), stop).Unwrap());

    private async Task<Photo> DrawAsync(Subject subject, int seed, CancellationToken stop)
    {
        using var jpeg = DemoPictures.Draw(subject, seed, services.GetRequiredService<RivetSettings>().PictureScale);
        var taken = await photos.TakeInAsync(jpeg, "drawn.jpg", stop);
        return taken.Photo ?? throw new InvalidOperationException(taken.Refusal!.Message);
    }

    /// <summary>Takes in the made-up sound as if it came from a phone.</summary>
    public async Task<Sound> SoundAsync(CancellationToken stop)
    {
        using var clicks = DemoSound.Clicks();
        var taken = await services.GetRequiredService<SoundFiles>().TakeInAsync(clicks, "clicks.wav", stop);
        return taken.Sound ?? throw new InvalidOperationException(taken.Refusal!.Message);
    }

    /// <summary>Takes in the drawn clip as if it came from a phone.</summary>
    public async Task<Video> VideoAsync(CancellationToken stop)
    {
        await using var clip = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "Demo", "cable-slap.webm"));
        var taken = await services.GetRequiredService<VideoFiles>().TakeInAsync(clip, "cable-slap.webm", stop);
        return taken.Video ?? throw new InvalidOperationException(taken.Refusal!.Message);
    }

    /// <summary>Several of them.</summary>
    public Task<Photo[]> PicturesAsync(IEnumerable<(Subject Subject, int Seed)> wanted, CancellationToken stop) =>
        Task.WhenAll(wanted.Select(picture => PictureAsync(picture.Subject, picture.Seed, stop)));

    private static bool NotFitted(InspectionTask task) => task.Key is "prop-ice" or "prop-control";

    private static double Middle(ToleranceBand band, int seed)
    {
        var (low, high) = (band.Low ?? band.High!.Value * 0.3, band.High ?? band.Low!.Value * 1.04);
        var value = low + (high - low) * (0.45 + 0.05 * (seed * 7 % 5 - 2));
        return Math.Round(value, (high - low) switch { > 20 => 0, > 2 => 1, > 0.2 => 2, _ => 3 });
    }
}
