using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using MellowRivet.Core.Schedule;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>
/// What the plan of the hangar goes by: when people work, what was promised, and a part that took long a year ago.
/// </summary>
internal static class DemoPlan
{
    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        await WeeksAsync(demo, stop);
        await PromiseAsync(demo, stop);
        await SlowAsync(demo, stop);
        await demo.Db.SaveChangesAsync(stop);
    }

    private static async Task WeeksAsync(DemoHistory demo, CancellationToken stop)
    {
        DayOfWeek[] four = [DayOfWeek.Monday, DayOfWeek.Tuesday, DayOfWeek.Wednesday, DayOfWeek.Thursday];
        // The first Wednesday from a week on: a day of the second week, whatever day it is.
        var course = Enumerable.Range(7, 7).Select(demo.Today.AddDays).First(day => day.DayOfWeek == DayOfWeek.Wednesday);
        foreach (var (who, week) in new[]
        {
            ("orla", new WorkWeek(new(8, 0), 5, four, [])), ("ines", WorkWeek.Usual with { Off = [new(course, course)] }),
            ("wim", WorkWeek.Usual with { Begins = new(7, 30) }), ("tamsin", new(new(9, 0), 6, four, [])),
            ("piet", new(new(9, 0), 6, [DayOfWeek.Saturday], [])),
        })
            if ((await demo.Db.People.SingleAsync(person => person.Id == demo.Person(who).Id, stop)).Work(week) is { } wrong)
                throw new InvalidOperationException(wrong.Message);
    }

    private static async Task PromiseAsync(DemoHistory demo, CancellationToken stop)
    {
        var tug = await demo.Db.Inspections.SingleAsync(row => row.State == InspectionState.InWork
            && row.Kind == InspectionKind.HundredHour, stop);
        tug.Tell(demo.Today.AddDays(6), demo.Person("wim").Id, demo.At(0, 8), demo.Today);
        tug.Expect(Inspection.ItselfKey, _ => (new([new(Skill.Mechanic, new(10, 13, 18)), new(Skill.Inspector, new(1, 2, 3))], []), null),
            tug.Unpriced([]), demo.Person("wim").Id, demo.At(0, 8));
    }

    private static async Task SlowAsync(DemoHistory demo, CancellationToken stop)
    {
        var bracket = await demo.Db.Discrepancies.OrderBy(row => row.FoundAt)
            .FirstAsync(row => row.What.StartsWith("Alternator bracket"), stop);
        var annual = await demo.Db.Inspections.SingleAsync(row => row.Id == bracket.InspectionId, stop);
        var (ordered, ines) = (annual.OpenedOn, demo.Person("ines").Id);
        var part = new OrderedPart(Guid.CreateVersion7(), "bracket with bush", "AB-1180", 1, "",
            new(annual.AircraftId, annual.Id, $"{bracket.Number:00}"));
        part.From(true, "Tollerby Airparts", 205, ordered.AddDays(19), false, ordered);
        var receipt = new Receipt(Guid.CreateVersion7(), 1, PartCondition.New, "CL-18402", "", null, ines, bracket.FoundAt.AddDays(19));
        part.Receive(receipt);
        part.Fit(new(receipt.Id, 1, "", "", null, "", ines, bracket.FoundAt.AddDays(20)), ordered.AddDays(20));
        demo.Db.OrderedParts.Add(part);
    }
}
