using System.Collections.Concurrent;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Plugs;
using MellowRivet.Store;
using MellowRivet.Web.Demo;

namespace MellowRivet.Web.Hosting.Benchmarking;

/// <summary>What is written, over and over: the form of each round, never the same twice.</summary>
internal sealed record TimedWrite(string Name, int Rounds, Func<int, (string Path, HttpContent Form)> Make);

/// <summary>The pages and the writes that are measured, on one annual that is in work in a shop.</summary>
internal sealed class TimedViews
{
    private readonly ShopPages pages;
    private readonly Inspection work;
    private readonly Aircraft aircraft;

    // How often each task was answered, as whoever has its page open sees it.
    private readonly ConcurrentDictionary<Guid, int> seen;

    private TimedViews(ShopPages pages)
    {
        (this.pages, work, aircraft) = (pages, pages.Work
            ?? throw new InvalidDataException("The shop has no annual in work to measure on."), pages.Aircraft!);
        seen = new(work.Tasks.Select(task => KeyValuePair.Create(task.Id, task.Changes)));
    }

    public static async Task<TimedViews> OfAsync(IServiceProvider services, bool big, CancellationToken stop)
    {
        await using var scope = services.CreateAsyncScope();
        return new(await ShopPages.OfAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(), row => row.Kind == InspectionKind.Annual
            && row.State == InspectionState.InWork && (row.WorkOrder.CompareTo("M") > 0) == big, stop));
    }

    private Component Engine => aircraft.Engines.First().Component;

    private string Walk => $"/walk/{work.Id}";

    private string File => $"/aircraft/{aircraft.Id}";

    public IReadOnlyList<(string Name, string Path)> Pages() => pages.All();

    public IReadOnlyList<TimedWrite> Writes(string token)
    {
        var tasks = work.Tasks.Where(task => task is { Measure: null, IsCompression: false, TiedTo: null } && task.ZoneKey == "cabin")
            .ToList();
        var hole = PlugTray.Holes(Engine)[0];
        var run = RunSheet.Of(Engine).Values.First(value => value.Position == "before");
        var photo = DemoPictures.Heavy(4_000_000);
        FormUrlEncodedContent Form(params (string Name, string Value)[] fields) =>
            new([new("post", $"{Guid.NewGuid()}"), new("__RequestVerificationToken", token),
                .. fields.Select(field => KeyValuePair.Create(field.Name, field.Value))]);
        (string, HttpContent) Verdict(int round)
        {
            var task = tasks[round % tasks.Count];
            return ($"{Walk}/airframe/{task.ZoneKey}?handler=Verdict",
                Form(("task", $"{task.Id}"), ("seen", $"{Seen(task.Id)}"), ("verdict", round / tasks.Count % 2 == 0 ? "NotYet" : "Good")));
        }
        (string, HttpContent) Found(int round, bool pictured)
        {
            var form = new MultipartFormDataContent
                { { new StringContent($"{Guid.NewGuid()}"), "post" }, { new StringContent($"Measured find {round}"), "what" },
                    { new StringContent("cabin"), "zone" }, { new StringContent("Watch"), "class" },
                    { new StringContent(token), "__RequestVerificationToken" } };
            // Some bytes behind the picture's end make it another file.
            if (pictured)
                form.Add(new ByteArrayContent([.. photo, .. BitConverter.GetBytes(round), .. Guid.NewGuid().ToByteArray()]), "photos",
                    "heavy.jpg");
            return ($"{Walk}/find", form);
        }
        return
        [
            new("a verdict", 100, Verdict),
            new("a plug's ohms", 100,
                round => ($"{Walk}/plugs/{Engine.Id}?handler=Step",
                    Form(("hole", $"{hole}"), ("step", "Ohms"), ("reading", $"{Guid.NewGuid()}"), ("value", $"{1500 + round}")))),
            new("a value of a sheet", 100,
                round => ($"{Walk}/engine-sheet/run/{Engine.Id}?handler=Value",
                    Form(("of", run.Kind), ("position", run.Position), ("reading", $"{Guid.NewGuid()}"), ("value", $"{700 + round % 50}"),
                        ("unit", run.Band.Unit.Symbol)))),
            new("a squawk", 20, round => ($"{Walk}/arrive?handler=Hear", Form(("words", $"Measured squawk {round}")))),
            new("a note on a discrepancy", 50,
                round => ($"{Walk}/fix-list/{work.Discrepancies.Min(found => found.Number)}?handler=Attach",
                    Form(("note", $"measured {round}")))),
            new("found, by words", 40, round => Found(round, false)),
            new("found, photo of 4 MB", 10, round => Found(round, true)),
            new("a part's plate", 50,
                round => ($"{File}/parts?handler=Plate&part={Engine.Id}",
                    Form(("part", $"{Engine.Id}"), ("serial", $"ME-{round}"), ("partNumber", Engine.PartNumber)))),
            new("an entry of a book", 50,
                round => ($"{File}/books?handler=Book", Form(("kind", "Manual"), ("title", $"Measured book {round}")))),
        ];
    }

    /// <summary>The tasks that several people answer at once, and where.</summary>
    public IReadOnlyList<(string Path, Guid Task)> ToAnswer() =>
        [.. work.Tasks.Where(task => task is { Measure: null, IsCompression: false, TiedTo: null })
            .Select(task => ($"{Walk}/{Drawings.Seam.Place(task.Station)}/{task.ZoneKey}?handler=Verdict", task.Id))];

    /// <summary>How often a task was answered until now, this time counted on.</summary>
    public int Seen(Guid task) => seen.AddOrUpdate(task, 1, (_, before) => before + 1) - 1;

    public Guid WorkId => work.Id;
}
