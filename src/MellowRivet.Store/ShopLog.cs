using System.Text.RegularExpressions;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Store.Files;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;

namespace MellowRivet.Store;

/// <summary>Who is at the shop's database, and what time it is.</summary>
/// <param name="who">Who; null where nobody is, as at a start.</param>
/// <param name="clock">The shop's time.</param>
public sealed class Acting(Func<Actor?> who, TimeProvider clock)
{
    public (Actor Who, DateTimeOffset At)? Now => who() is { } actor ? (actor, clock.GetUtcNow()) : null;
}

/// <summary>
/// The shop's log. What a save changes is seen at the save itself, whichever page asked for it: a new page can't forget to tell.
/// What changes nothing, such as a copy that is taken out, is told by whoever does it.
/// </summary>
public static partial class ShopLog
{
    /// <summary>Adds the lines of what is about to be saved.</summary>
    internal static async Task LogAsync(this RivetDb db, Actor who, DateTimeOffset at, CancellationToken stop)
    {
        List<(Deed Deed, string About, string? Before, string? After)> deeds = [];
        foreach (var entry in db.ChangeTracker.Entries().Where(entry => entry.State is EntityState.Added or EntityState.Modified).ToList())
            deeds.AddRange(entry.Entity switch
            {
                SignedRecord record when entry.State == EntityState.Added => [Of(record)],
                Person person => await OfAsync(db, entry, person, stop),
                Account account => await OfAsync(db, entry, account, stop),
                Shop => OfHouse(entry),
                Aircraft aircraft when entry.State == EntityState.Modified => OfLimits(entry, aircraft),
                Component part when entry.State == EntityState.Modified => Changed<CompressionRule>(entry,
                    nameof(Component.CompressionRule), Deed.LimitSet, $"{part.Title} {part.SerialNumber}, what it is judged by",
                    rule => rule?.InWords),
                Discrepancy found => await OfAsync(db, entry, found, stop),
                OwnerLink link => [await OfAsync(db, entry, link, stop)],
                _ => [],
            });
        db.Log.AddRange(deeds.Where(deed => deed.Deed != 0)
            .Select(deed => new LogLine(at, who, deed.Deed, deed.About, deed.Before, deed.After)));
    }

    /// <summary>Adds a line of its own, for what changes no row that is looked at. It is saved with whatever else is.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="deed">What was done.</param>
    /// <param name="about">To what.</param>
    /// <param name="after">What came of it.</param>
    /// <param name="who">Who did it, where it isn't whoever is at it.</param>
    public static void Tell(this RivetDb db, Deed deed, string about, string? after = null, Func<Actor, Actor>? who = null)
    {
        if (db.ActingNow is { } now)
            db.Log.Add(new(now.At, who?.Invoke(now.Who) ?? now.Who, deed, about, null, after));
    }

    /// <summary>Tells of what leaves, and saves it at once. It leaves where a full disk takes no line, too: a shop in trouble gets its data
    /// out.</summary>
    public static async Task TellNowAsync(this RivetDb db, Deed deed, string about, CancellationToken stop, Func<Actor, Actor>? who = null)
    {
        db.Tell(deed, about, who: who);
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (Exception full) when (Disk.IsFull(full))
        {
            db.Forget();
        }
    }

    /// <summary>The lines that are asked for, latest first.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="asked">What is looked for.</param>
    /// <param name="clock">The shop's time: days are its days.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="skip">How many are passed over.</param>
    /// <param name="most">How many are taken.</param>
    public static async Task<IReadOnlyList<LogLine>> LogAsync(this RivetDb db, LogAsked asked, TimeProvider clock, CancellationToken stop,
        int skip = 0, int most = int.MaxValue) => await db.Lines(asked, clock).Skip(skip).Take(most).ToListAsync(stop);

    /// <summary>How many lines are asked for.</summary>
    public static Task<int> CountLogAsync(this RivetDb db, LogAsked asked, TimeProvider clock, CancellationToken stop) =>
        db.Lines(asked, clock).CountAsync(stop);

    private static IQueryable<LogLine> Lines(this RivetDb db, LogAsked asked, TimeProvider clock)
    {
        var lines = db.Log.AsNoTracking();
        if (asked.Deed is { } deed)
            lines = lines.Where(line => line.Deed == deed);
        if (asked.By is { } by)
            lines = lines.Where(line => line.By == by);
        if (asked.From is { } from && clock.At(from, default) is var begins)
            lines = lines.Where(line => line.At >= begins);
        if (asked.To is { } to && clock.At(to.AddDays(1), default) is var ends)
            lines = lines.Where(line => line.At < ends);
        foreach (var word in asked.Words?.Split(' ', StringSplitOptions.RemoveEmptyEntries) ?? [])
        {
            var like = $"%{word.Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%";
            lines = lines.Where(line => EF.Functions.Like(line.Name, like, "\\") || EF.Functions.Like(line.About, like, "\\")
                || EF.Functions.Like(line.Before!, like, "\\") || EF.Functions.Like(line.After!, like, "\\")
                || EF.Functions.Like(line.From, like, "\\"));
        }
        return lines.OrderByDescending(line => line.Number);
    }

    private static (Deed, string, string?, string?) Of(SignedRecord record) =>
        (Deed.Signed, $"{record.Text()["registration"]} {record.Text()["workOrder"]}, {Words(record.Book)}", null,
            $"record {record.Number}");

    private static async Task<IEnumerable<(Deed, string, string?, string?)>> OfAsync(RivetDb db, EntityEntry entry, Person person,
        CancellationToken stop)
    {
        var name = $"{person.Name}, {person.Initials}";
        if (entry.State == EntityState.Added)
            return [(Deed.PersonAdded, name, null, RolesOf(person.Roles))];
        var registrations = entry.Property("owns").IsModified
            ? await db.Aircraft.AsNoTracking().ToDictionaryAsync(row => row.Id, row => row.Registration, stop)
            : [];
        var called = entry.Property(nameof(Person.Name)).IsModified || entry.Property(nameof(Person.Initials)).IsModified
            ? (Deed.PersonChanged, name,
                $"{entry.OriginalValues[nameof(Person.Name)]}, {entry.OriginalValues[nameof(Person.Initials)]}", name)
            : default((Deed, string, string?, string?));
        var left = entry.Property(nameof(Person.LeftAt)).IsModified
            ? (person.IsHere ? Deed.PersonBack : Deed.PersonLeft, name, null, (string?)null)
            : default((Deed, string, string?, string?));
        var key = entry.Property(nameof(Person.CalendarKeyHash)).IsModified && person.CalendarKeyHash is not null
            ? (Deed.CalendarAddressMade, name, null, (string?)null)
            : default((Deed, string, string?, string?));
        return
        [
            called, left, key,
            .. Changed<List<Role>>(entry, "roles", Deed.RolesSet, name, RolesOf),
            .. Changed<List<Certificate>>(entry, "certificates", Deed.CertificatesSet, name, held => string.Join("; ",
                held!.Select(one => $"{one.Kind.InWords()} {one.Number}{(one.OnlySerial is { } serial ? $", serial {serial} only" : "")}"
                    + $"{(one.Until is { } end ? $", until {end:yyyy-MM-dd}" : "")}"))),
            .. Changed<List<Ownership>>(entry, "owns", Deed.OwnerSet, name, owns => string.Join("; ",
                owns!.Select(one => $"{registrations.GetValueOrDefault(one.AircraftId)} from {one.From:yyyy-MM-dd}"
                    + $"{(one.Until is { } end ? $" until {end:yyyy-MM-dd}" : "")}"))),
        ];
    }

    private static string Words(Book book) => book switch
    {
        Book.DiscrepancyList => "discrepancy list",
        Book.BulletinStatus => "status of bulletins",
        _ => $"{book.ToString().ToLowerInvariant()} book",
    };

    private static string RolesOf(IEnumerable<Role>? roles) => string.Join(", ", roles!.Select(role => role.InWords()));

    private static async Task<IEnumerable<(Deed, string, string?, string?)>> OfAsync(RivetDb db, EntityEntry entry, Account account,
        CancellationToken stop) =>
        entry.State == EntityState.Modified && entry.Property(nameof(Account.PasswordHash)).IsModified
            ? [(Deed.PasswordSet, (await db.NamesAsync(stop)).GetValueOrDefault(account.PersonId, ""), null, null)]
            : [];

    private static IEnumerable<(Deed, string, string?, string?)> OfLimits(EntityEntry entry, Aircraft aircraft)
    {
        var limits = Was<List<ManualLimit>>(entry, "limits")!;
        foreach (var limit in aircraft.Limits.Except(limits))
            yield return (Deed.LimitSet, $"{aircraft.Registration}, {limit.Measure}",
                limits.Find(before => before.Measure == limit.Measure)?.InWords, limit.InWords);
        var tables = Was<List<CableTable>>(entry, "cableTables")!;
        foreach (var table in aircraft.CableTables.Where(table => tables.All(before => before.InWords != table.InWords)))
            yield return (Deed.LimitSet, $"{aircraft.Registration}, {string.Join(", ", table.Measures)}",
                tables.Find(before => before.Measures.Intersect(table.Measures).Any())?.InWords, table.InWords);
    }

    private static async Task<IEnumerable<(Deed, string, string?, string?)>> OfAsync(RivetDb db, EntityEntry entry, Discrepancy found,
        CancellationToken stop)
    {
        var isNew = entry.State == EntityState.Added;
        var less = found.Lowered.Skip(isNew ? 0 : Was<List<Lowered>>(entry, "lowered")!.Count).ToList();
        // From one class to a lower one without a word that it would be kept with.
        var before = isNew ? found.Class : (DiscrepancyClass)entry.Property(nameof(Discrepancy.Class)).OriginalValue!;
        var lower = less.Count == 0 && found.Class > before;
        var deferred = found.IsDeferred && (isNew || entry.Property(nameof(Discrepancy.Correction)).IsModified) ? found.Correction : null;
        if (less.Count == 0 && !lower && deferred is null)
            return [];
        var order = await db.Inspections.Where(row => row.Id == found.InspectionId).Select(row => row.WorkOrder).FirstOrDefaultAsync(stop);
        var about = $"{order}-{found.Number:00}, {found.What}";
        return
        [
            .. less.Select(one => (Deed.ClassLowered, about, (string?)one.From.InWords(),
                (string?)$"{one.To.InWords()}: {one.Reason} {one.Reference}".Trim())),
            lower ? (Deed.ClassLowered, about, before.InWords(), found.Class.InWords()) : default,
            deferred is null ? default : (Deed.Deferred, about, null, $"{deferred.Action} {deferred.Reference}".Trim()),
        ];
    }

    private static async Task<(Deed, string, string?, string?)> OfAsync(RivetDb db, EntityEntry entry, OwnerLink link,
        CancellationToken stop)
    {
        var ended = entry.State == EntityState.Modified && entry.Property(nameof(OwnerLink.RevokedAt)).IsModified;
        if (entry.State == EntityState.Modified && !ended)
            return default;
        var order = await db.Inspections.Where(row => row.Id == link.InspectionId).Select(row => row.WorkOrder).FirstOrDefaultAsync(stop);
        return (ended ? Deed.OwnerLinkEnded : Deed.OwnerLinkMade, $"{order}, sent to {link.SentTo}", null, null);
    }

    private static IEnumerable<(Deed, string, string?, string?)> Changed<T>(EntityEntry entry, string property, Deed deed, string about,
        Func<T?, string?> inWords)
    {
        var (before, after) = (entry.State == EntityState.Added ? null : inWords(Was<T>(entry, property)),
            inWords((T?)entry.Property(property).CurrentValue));
        return before != after ? [(deed, about, before, after)] : [];
    }

    private static T? Was<T>(EntityEntry entry, string property) => (T?)entry.Property(property).OriginalValue;

    // Only what is otherwise now.
    private static IEnumerable<(Deed, string, string?, string?)> OfHouse(EntityEntry entry)
    {
        // At a comma before the next rule: a name has commas of its own.
        static string[] Each(object? rules) =>
            rules is null ? [] : NextRule().Split($"{rules}"[(nameof(HouseRules).Length + 1)..].Trim('{', '}', ' '));
        var (before, after) = (entry.State == EntityState.Added ? [] : Each(Was<HouseRules>(entry, nameof(Shop.Rules))),
            Each(entry.Property(nameof(Shop.Rules)).CurrentValue));
        return before.SequenceEqual(after) ? []
            : [(Deed.HouseRulesSet, "the shop", string.Join(", ", before.Except(after)), string.Join(", ", after.Except(before)))];
    }

    [GeneratedRegex(@", (?=[A-Z]\w* =)")]
    private static partial Regex NextRule();
}
