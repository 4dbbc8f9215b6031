using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net;
using System.Text.RegularExpressions;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Walk;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>The frame around the pages of a walk is one summary, kept with what it was drawn from.</summary>
public class WalkFrameTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static readonly IReadOnlyDictionary<Guid, Person> Nobody = new Dictionary<Guid, Person>();

    private static WalkFrame Of(FrameOf of) => new(of, null!, new Dictionary<Station, IReadOnlyList<Rivet>>(), 0, 0, 0, []);

    [Fact]
    public async Task One_draws_it_and_whoever_comes_meanwhile_waits_for_that()
    {
        using var frames = new KeptFrames();
        var (walk, now, drawn) = (Guid.NewGuid(), new FrameOf(3, 1, BulletinResearch.None, Nobody), 0);
        var begun = new TaskCompletionSource();
        var asked = Enumerable.Range(0, 8).Select(_ => frames.GetAsync(walk, now, async () =>
        {
            Interlocked.Increment(ref drawn);
            await begun.Task;
            return Of(now);
        }, default)).ToList();
        begun.SetResult();
        (await Task.WhenAll(asked)).Distinct().ShouldHaveSingleItem();
        drawn.ShouldBe(1);
    }

    // Whatever it was drawn from may change: then it is drawn again, and a later one does for who asks about an earlier state.
    [Fact]
    public async Task It_is_drawn_again_for_every_change_it_rests_on()
    {
        using var frames = new KeptFrames();
        var walk = Guid.NewGuid();
        FrameOf first = new(3, 1, BulletinResearch.None, Nobody);
        async Task<bool> IsDrawnAsync(FrameOf of)
        {
            var drawn = false;
            await frames.GetAsync(walk, of, () =>
            {
                drawn = true;
                return Task.FromResult(Of(of));
            }, default);
            return drawn;
        }

        (await IsDrawnAsync(first)).ShouldBeTrue();
        (await IsDrawnAsync(first)).ShouldBeFalse();
        (await IsDrawnAsync(first with { Changes = 4 })).ShouldBeTrue("something was written on the inspection");
        (await IsDrawnAsync(first)).ShouldBeFalse("what is newer has it in it");
        (await IsDrawnAsync(first with { Changes = 4, AircraftChanges = 2 })).ShouldBeTrue("a limit or a part of the aircraft");
        (await IsDrawnAsync(first with { Changes = 4, AircraftChanges = 2, Research = new([]) }))
            .ShouldBeTrue("a directive, or another day");
        (await IsDrawnAsync(first with { Changes = 4, AircraftChanges = 2, People = new Dictionary<Guid, Person>() }))
            .ShouldBeTrue("somebody's certificate");
    }

    [Fact]
    public async Task It_says_at_once_what_anybody_wrote()
    {
        var (ines, wim, walk) = (await server.EnterAsync("ines"), await server.EnterAsync("wim"), server.Walk("N04QF"));
        async Task<(int ToLookAt, int Airworthiness, int Other)> CountsAsync(Visitor who, string page) =>
            Regex.Matches((await who.ReadAsync($"{walk}/{page}")).QuerySelector("#foot .between")!.TextContent, "\\d+")
                .Select(match => int.Parse(match.Value)).ToList() is [var look, var air, var other]
                ? (look, air, other)
                : throw new InvalidDataException();

        var before = await CountsAsync(ines, "tags");
        var id = Guid.Parse(walk["/walk/".Length..]);
        var task = server.With(db => db.Set<InspectionTask>()
            .First(one => one.InspectionId == id && one.Verdict == TaskVerdict.NotYet && one.Measure == null && !one.IsCompression
                && one.TiedTo == null && one.Station == Station.Airframe));
        (await ines.PostAsync($"{walk}/airframe/{task.ZoneKey}?handler=Verdict", ("post", $"{Guid.NewGuid()}"), ("task", $"{task.Id}"),
            ("seen", $"{task.Changes}"), ("verdict", "Good"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await CountsAsync(wim, "tools")).ToLookAt.ShouldBe(before.ToLookAt - 1);
        (await ines.SendAsync($"{walk}/find", [], ("post", $"{Guid.NewGuid()}"), ("what", "Left flap hinge bolt has no cotter pin"),
            ("zone", task.ZoneKey), ("class", "Airworthiness"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        // What was found may hold the zone up as well: from here on only what is heard changes.
        var found = await CountsAsync(wim, "arrive");
        found.Airworthiness.ShouldBe(before.Airworthiness + 1);
        (await ines.PostAsync($"{walk}/arrive?handler=Hear", ("post", $"{Guid.NewGuid()}"), ("words", "Door rattles"))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        var heard = await CountsAsync(wim, "fix-list");
        heard.Other.ShouldBe(found.Other + 1);

        // Another door into the same house: a save that no page of the walk made.
        await server.SaveAsync(db => db.Inspections.Single(one => one.Id == id)
            .Hear(Guid.NewGuid(), "Radio hums", Guid.NewGuid(), server.Clock.GetUtcNow()));
        (await CountsAsync(ines, "airframe")).Other.ShouldBe(heard.Other + 1);
    }

    // What a page took to be drawn is what the next one shows, and a value that is judged takes its own task alone.
    [Fact]
    public async Task An_inspection_is_loaded_once_to_be_shown_until_somebody_writes()
    {
        var (ines, walk) = (await server.EnterAsync("ines"), server.Walk("N04QF"));
        var id = Guid.Parse(walk["/walk/".Length..]);
        var engine = server.With(db => db.Aircraft.AsNoTracking().WithParts()
            .Single(one => one.Registration == "N04QF").Engines.First().Component);
        var measured = server.With(db => db.Set<InspectionTask>().AsEnumerable()
            .First(one => one.InspectionId == id && one.Measure is { Method: MeasureMethod.Plain } && one.Station == Station.Airframe));
        var value = RunSheet.Of(engine).Values.First(one => one.Position == "before");
        await ines.ReadAsync($"{walk}/tags");

        using var asked = new AskedOfDatabase(server.Data.Database);
        int TasksLoaded() => asked.Take().Count(sql => sql.Contains("\"InspectionTask\"") && sql.Contains("SELECT"));
        foreach (var page in new[] { "airframe", "tags", "fix-list", "close", $"engine-sheet/run/{engine.Id}" })
        {
            await ines.ReadAsync($"{walk}/{page}");
            TasksLoaded().ShouldBe(0, page);
        }
        (await ines.GetAsync($"{walk}/airframe/{measured.ZoneKey}?handler=Judge&task={measured.Id}&value=1")).EnsureSuccessStatusCode();
        asked.Take().ShouldNotContain(sql => sql.Contains("\"Discrepancy\"") || sql.Contains("\"Component\"")
            || (sql.Contains("FROM \"InspectionTask\"") && !sql.Contains("\"i\".\"Id\" = @taskId")));
        (await ines.PressAsync($"{walk}/engine-sheet/run/{engine.Id}?handler=Value", ("post", $"{Guid.NewGuid()}"), ("of", value.Kind),
            ("position", value.Position), ("reading", $"{Guid.NewGuid()}"), ("value", "701"), ("unit", value.Band.Unit.Symbol)))
                .EnsureSuccessStatusCode();
        TasksLoaded().ShouldBe(2, "in its turn, and as it is stored, to be shown from then on");
        await ines.ReadAsync($"{walk}/airframe");
        TasksLoaded().ShouldBe(0);
    }

    private sealed class AskedOfDatabase : IObserver<DiagnosticListener>, IObserver<KeyValuePair<string, object?>>, IDisposable
    {
        private readonly ConcurrentQueue<string> asked = [];
        private readonly List<IDisposable> heard = [];

        private readonly string database;

        public AskedOfDatabase(string database)
        {
            this.database = database;
            heard.Add(DiagnosticListener.AllListeners.Subscribe(this));
        }

        public IReadOnlyList<string> Take()
        {
            List<string> all = [];
            while (asked.TryDequeue(out var sql))
                all.Add(sql);
            return all;
        }

        public void OnNext(DiagnosticListener value)
        {
            if (value.Name == DbLoggerCategory.Name)
                heard.Add(value.Subscribe(this));
        }

        public void OnNext(KeyValuePair<string, object?> value)
        {
            // Other tests ask their own shops meanwhile.
            if (value is { Key: var key, Value: CommandEventData command } && key == RelationalEventId.CommandExecuting.Name
                && command.Command.Connection?.DataSource == database)
                asked.Enqueue(command.Command.CommandText);
        }

        public void OnCompleted() { }

        public void OnError(Exception error) { }

        public void Dispose() => heard.ForEach(one => one.Dispose());
    }
}
