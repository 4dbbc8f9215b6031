using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Photos;

namespace MellowRivet.Web.Demo;

/// <summary>Writes the demo's past and present through Core, as the pages would, but at other times than now.</summary>
internal sealed class DemoHistory(IServiceProvider services, IReadOnlyDictionary<string, Person> people)
{
    private readonly PhotoFiles photos = services.GetRequiredService<PhotoFiles>();

    public RivetDb Db { get; } = services.GetRequiredService<RivetDb>();
    public Shelf Shelf { get; } = services.GetRequiredService<Shelf>();
    public DateTimeOffset Now { get; } = services.GetRequiredService<TimeProvider>().GetUtcNow();
    public DateOnly Today => DateOnly.FromDateTime(Now.UtcDateTime);
    public Worksheet Worksheet => Shelf.Worksheets[0];

    public Person Person(string signInName) => people[signInName];

    /// <summary>Answers every task as good, with readings near the middle of their limits. The seed moves each a little from year to year.</summary>
    public static void AnswerAll(Inspection inspection, Aircraft aircraft, DateTimeOffset at, Person by, int seed, Func<InspectionTask, bool>? only = null)
    {
        foreach (var task in inspection.Tasks.Where(task => task.Verdict == TaskVerdict.NotYet && (only?.Invoke(task) ?? true)).ToList())
        {
            if (task.Measure is { } measure && Inspection.BandFor(task, aircraft) is { } band)
            {
                if (band.Low is null && band.High is null)
                {
                    task.Set(TaskVerdict.NotApplicable, "no such instrument or limit on this aircraft", null, by.Id, at);
                    continue;
                }
                var value = Middle(band, seed + task.Order);
                inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, null, measure.Kind, task.ZoneKey, value, band.Unit, new(), inspection.TimeInService, at, by.Id)
                { InspectionId = inspection.Id, TaskId = task.Id });
            }
            task.Set(NotFitted(task) ? TaskVerdict.NotApplicable : TaskVerdict.Good, "not fitted", inspection.JudgementAt(task, aircraft), by.Id, at);
        }
    }

    /// <summary>Signs, and saves all of it.</summary>
    public async Task SignAsync(Inspection inspection, Aircraft aircraft, Person by, DateTimeOffset at, CancellationToken stop)
    {
        var certificate = Shelf.Rules.MaySign(by, inspection.Kind, aircraft).By ?? throw new InvalidOperationException($"{by.Name} can't sign the demo's {inspection.Kind}.");
        Desk.Seal(Db, new(inspection, aircraft), Shelf.Rules, new(by, certificate), at);
        await Db.SaveChangesAsync(stop);
    }

    /// <summary>Takes in a drawn picture as if it came from a camera.</summary>
    public async Task<Photo> PictureAsync(Subject subject, int seed, CancellationToken stop)
    {
        using var jpeg = DemoPictures.Draw(subject, seed);
        var taken = await photos.TakeInAsync(jpeg, "drawn.jpg", stop);
        return taken.Photo ?? throw new InvalidOperationException(taken.Refusal!.Message);
    }

    private static bool NotFitted(InspectionTask task) => task.Key is "prop-ice" or "prop-control";

    private static double Middle(ToleranceBand band, int seed)
    {
        var (low, high) = (band.Low ?? band.High!.Value * 0.3, band.High ?? band.Low!.Value * 1.04);
        var value = low + (high - low) * (0.45 + 0.05 * (seed * 7 % 5 - 2));
        return Math.Round(value, (high - low) switch { > 20 => 0, > 2 => 1, > 0.2 => 2, _ => 3 });
    }
}
