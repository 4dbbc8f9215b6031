using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>An inspection is loaded with what is worked on. What isn't loaded is never taken for nothing.</summary>
public class JobTests : IAsyncLifetime
{
    private readonly TestShop shop = new();
    private Guid inspection;

    public async ValueTask InitializeAsync() => inspection = await shop.BeginAsync();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private static readonly IReadOnlyDictionary<JobParts, Action<Job>> Asked = new Dictionary<JobParts, Action<Job>>
    {
        [JobParts.Tasks] = job => _ = job.Inspection.Tasks.Count,
        [JobParts.Discrepancies] = job => _ = job.Inspection.OpenAirworthiness.Count(),
        [JobParts.Readings] = job => _ = job.Inspection.Readings.Count,
        [JobParts.CompressionTests] = job => _ = job.Inspection.CompressionTests.Count,
        [JobParts.Components] = job => _ = job.Aircraft.Engines.Count(),
    };

    // Nothing was found, read or tested on it yet: an empty list that was fetched is empty, and one that wasn't is not.
    [Fact]
    public async Task What_was_not_fetched_is_not_taken_for_nothing()
    {
        await using var db = shop.Open();
        foreach (var parts in new[] { JobParts.Bare, JobParts.Tasks, JobParts.Discrepancies, JobParts.Readings, JobParts.CompressionTests,
            JobParts.Components, JobParts.Walk, JobParts.Engine, JobParts.Whole })
        {
            var job = (await shop.Desk(db).JobAsync(inspection, default, parts))!;
            foreach (var (part, ask) in Asked)
                if (parts.HasFlag(part))
                    Should.NotThrow(() => ask(job), $"{part} of {parts}");
                else
                    Should.Throw<InvalidOperationException>(() => ask(job), $"{part} of {parts}").Message.ShouldContain("loaded without");
        }
        Should.Throw<InvalidOperationException>(() => db.Aircraft.First()
            .ReadMeter(MeterKind.Tach, TestShop.Today, 1001, "IT")).Message.ShouldContain("meterReadings");
    }

    [Fact]
    public async Task More_of_a_job_is_fetched_once_and_the_rest_stays_as_it_is()
    {
        await using var db = shop.Open();
        var desk = shop.Desk(db);
        var written = await desk.WriteAsync(inspection, Guid.NewGuid(), job =>
        {
            job.Inspection.Hear(Guid.NewGuid(), "runs rough", TestShop.Ines, TestShop.Now);
            return null;
        }, default, JobParts.Bare);
        var job = written.Job!;
        job.Has.ShouldBe(JobParts.Bare);
        await desk.WithAsync(job, JobParts.Whole, default);
        job.Has.ShouldBe(JobParts.Whole);
        (job.Inspection.Squawks.Count, job.Inspection.Tasks.Count, job.Inspection.Discrepancies.Count, job.Inspection.Readings.Count,
            job.Inspection.CompressionTests.Count).ShouldBe((1, 2, 0, 0, 0));
        job.Aircraft.Cylinder(job.Aircraft.Engines.Single().Component, 4).ShouldNotBeNull();
        await desk.WithAsync(job, JobParts.Whole, default);
        job.Inspection.Tasks.Count.ShouldBe(2);
        db.ChangeTracker.HasChanges().ShouldBeFalse("to fetch is not to change");
    }

    [Fact]
    public async Task A_reading_that_is_taken_back_is_a_change_of_its_inspection()
    {
        await using var db = shop.Open();
        var reading = Guid.NewGuid();
        await WriteAsync(db, job => job.Inspection.Record(new(reading, job.Aircraft.Id, null, "tyre", "gear", 30, Unit.Find("psi")!, new(),
            job.Inspection.TimeInService, TestShop.Now, TestShop.Ines) { InspectionId = inspection, TaskId = job.Inspection.Tasks[0].Id }));
        await using var later = shop.Open();
        var before = (await shop.Desk(later).RevisionAsync(inspection, default))!.Changes;
        await WriteAsync(later, job => job.Inspection.Withdraw(job.Inspection.Tasks[0], reading, TestShop.Ines).ShouldNotBeNull());
        await using var last = shop.Open();
        (await shop.Desk(last).RevisionAsync(inspection, default))!.Changes.ShouldBeGreaterThan(before);
        (await shop.Desk(last).JobAsync(inspection, default))!.Inspection.Readings.ShouldBeEmpty();

        async Task WriteAsync(RivetDb at, Action<Job> work) =>
            (await shop.Desk(at).WriteAsync(inspection, Guid.NewGuid(), job =>
            {
                work(job);
                return null;
            }, default)).Done.ShouldBeTrue();
    }

    [Fact]
    public async Task An_answer_is_given_on_its_zone_alone_and_takes_nothing_away()
    {
        await using (var db = shop.Open())
            await shop.Desk(db).WriteAsync(inspection, Guid.NewGuid(), job =>
            {
                foreach (var task in job.Inspection.Tasks)
                    job.Inspection.Record(new(Guid.NewGuid(), job.Aircraft.Id, null, "tyre", task.ZoneKey, 30, Unit.Find("psi")!, new(),
                        job.Inspection.TimeInService, TestShop.Now, TestShop.Ines) { InspectionId = inspection, TaskId = task.Id });
                job.Inspection.Find(Guid.NewGuid(), "cut", "gear", "", DiscrepancyClass.Airworthiness, false, null, TestShop.Ines,
                    TestShop.Now);
                return null;
            }, default);
        Guid asked;
        await using (var db = shop.Open())
            asked = (await db.Set<InspectionTask>().SingleAsync(task => task.Key == "tyres")).Id;

        async Task<Written> AnswerAsync(Guid of, Guid task)
        {
            await using var db = shop.Open();
            return await shop.Desk(db).AnswerAsync(of, task, Guid.NewGuid(), (job, there) =>
            {
                job.Inspection.Readings.ShouldHaveSingleItem().TaskId.ShouldBe(asked, "only what was read at it");
                Should.Throw<InvalidOperationException>(() => job.Inspection.Discrepancies.Count);
                Should.Throw<InvalidOperationException>(() => job.Aircraft.Engines.Count());
                return Task.FromResult(job.Inspection.Answer(there, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now));
            }, default);
        }

        (await AnswerAsync(await shop.BeginOtherAsync(), asked)).Refusal!.Message.ShouldBe("There is no such task.",
            "it is another inspection's");
        (await AnswerAsync(inspection, Guid.NewGuid())).Refusal.ShouldNotBeNull();
        (await AnswerAsync(inspection, asked))
            .ShouldSatisfyAllConditions(written => written.Done.ShouldBeTrue(),
                written => written.Job.ShouldBeNull("it would be a part of one"));
        await using var after = shop.Open();
        var kept = (await shop.Desk(after).JobAsync(inspection, default))!.Inspection;
        (kept.Tasks.Single(task => task.Verdict == TaskVerdict.Good).Key, kept.Readings.Count,
            kept.Discrepancies.Count).ShouldBe(("tyres", 2, 1));
    }

    // What is measured is written on a job without its fix list: the bad judgement is kept all the same.
    [Fact]
    public async Task A_bad_reading_is_remembered_by_whoever_loads_what_a_sheet_shows()
    {
        await using (var db = shop.Open())
            await shop.Desk(db).WriteAsync(inspection, Guid.NewGuid(), job =>
            {
                var cylinder = job.Aircraft.Cylinder(job.Aircraft.Engines.Single().Component, 2)!;
                var test = job.Inspection.Begin(
                    new(Guid.NewGuid(), job.Aircraft.Engines.Single().ComponentId, 80, 29.92, true, null, TestShop.Ines, TestShop.Now));
                job.Inspection.Record(new(Guid.NewGuid(), job.Aircraft.Id, cylinder.Id, Reading.CompressionKind, "2", 15, Unit.Psi,
                    new(true, 80, 29.92), job.Inspection.TimeInService, TestShop.Now,
                    TestShop.Ines) { InspectionId = inspection, CompressionTestId = test.Id });
                return null;
            }, default, JobParts.Engine);
        await using var after = shop.Open();
        (await shop.Desk(after).JobAsync(inspection, default))!.Inspection.Remembered.ShouldHaveSingleItem().Judged.What.ShouldStartWith(
            "Compression");
    }

    // Whoever waits for a turn waits without holding a thread, and each gets one.
    [Fact]
    public async Task Writers_of_one_process_queue_and_none_is_left_out()
    {
        var order = new List<int>();
        var written = await Task.WhenAll(Enumerable.Range(0, 40).Select(async one =>
        {
            await using var db = shop.Open();
            return await db.OnceAsync(Guid.NewGuid(), TestShop.Clock, () =>
            {
                order.Add(one);
                return Task.FromResult<Core.Refusal?>(null);
            }, default);
        }));
        written.ShouldAllBe(outcome => outcome.Done);
        order.Order().ShouldBe(Enumerable.Range(0, 40));
    }
}
