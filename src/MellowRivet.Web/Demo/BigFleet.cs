using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>A fleet as large as a shop's ever gets, for measuring: parts, ten years of monthly readings, due items on aircraft and engine.</summary>
internal static class BigFleet
{
    public const int Aircraft = 300, ItemsEach = 25, Bulletins = 2_000;

    public static async Task MakeAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        RuleSource source = new(Standing.Manual, "invented for measuring, p. 1");
        db.Types.AddRange(Enumerable.Range(0, 97).Select(number => $"Type {number}").Prepend("Type").Select((model, at) => new KnownType(Guid.CreateVersion7(), TypeKind.Aircraft, at == 0 ? "Measured" : "Another", model)));
        db.ChangeTracker.AutoDetectChangesEnabled = false;
        for (var number = 0; number < Aircraft; number++)
        {
            var aircraft = new Aircraft(Guid.CreateVersion7(), $"N0M{number:000}", "Measured Type", $"M-{number}", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 4));
            var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFour, default, $"ME-{number}", $"MP-{number}", new Hours(0), new(IgnitionKind.Magneto, IgnitionKind.Magneto));
            for (var month = 120; month >= 0; month--)
                aircraft.ReadTime(today.AddMonths(-month), new Hours(1000 + (120 - month) * (5 + number % 17)));
            db.Aircraft.Add(aircraft);
            for (var item = 0; item < ItemsEach; item++)
            {
                var onEngine = item % 5 == 0;
                Interval interval = new(item % 3 == 0 ? null : 50 * (1 + item), item % 3 == 1 ? null : 6 * (1 + item % 9), item % 2 == 0 ? CalendarRule.EndOfMonth : CalendarRule.SameDay);
                var due = new DueItem(Guid.CreateVersion7(), onEngine ? null : aircraft.Id, onEngine ? engine.Id : null, $"Measured item {item}", DueKind.Service, interval, source);
                if (item % 11 != 0)
                    due.MarkDone(new(today.AddDays(-item * 13), Math.Max(0, aircraft.TimeInService.Value - item * 9), null, null, null, "bench"), today);
                db.DueItems.Add(due);
            }
        }
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
        db.ChangeTracker.AutoDetectChangesEnabled = true;
    }

    /// <summary>As many bulletins as a large shop's list has: one in eight concerns part of the fleet, one in forty asks for a serial number that nobody has read.</summary>
    public static async Task<int> TakeInBulletinsAsync(RivetDb db, TimeProvider clock, CancellationToken stop)
    {
        var (today, at) = (clock.Today(), clock.GetUtcNow());
        await db.TakeInAsync([.. Enumerable.Range(0, Bulletins).Select(number =>
        {
            var model = number % 8 == 0 ? "Measured Type" : $"Another Type {number % 97}";
            var serials = $"ME-{number % 250} to ME-{number % 250 + 60} except ME-{number % 250 + 9} to ME-{number % 250 + 12}; MX-series all";
            var third = number % 40 == 0 ? "engine.crankshaft.serial in K-1 to K-900" : "none of:\n  engine.modification.MM-1 is yes\n  aircraft.hours at least 900000";
            return new Bulletin(BulletinFile.FormatName, BulletinFile.CurrentVersion, "Measured Issuer", $"MB-{number:0000}", "", (BulletinKind)(number % 6 + 1), $"Measured subject {number}", today.AddDays(-number), today.AddDays(-number),
                RuleText.Read($"aircraft.model is {model}\nengine.serial in {serials}\n{third}").Rule!, new([new(DeadlineKind.WithinHours, Hours: 50), new(DeadlineKind.WithinMonths, Months: 12)], new Repeat(100)), "measured", [], ComponentKind.Engine);
        })], "measured", null, at, stop);
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
        return await db.Bulletins.CountAsync(stop);
    }
}
