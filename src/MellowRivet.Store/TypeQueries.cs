using System.Text.Json;
using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>The answer to "did you mean": one of the list, a type of its own, or not settled now.</summary>
/// <param name="Means">The type it means.</param>
/// <param name="Own">It is a type of its own.</param>
/// <param name="Maker">Who makes that.</param>
/// <param name="Leave">It stays as it was typed, and no bulletin can be told by it.</param>
/// <param name="About">The name that was asked about: of another one it says nothing. Null where none was.</param>
public sealed record TypeAnswer(Guid? Means, bool Own, string? Maker, bool Leave = false, string? About = null)
{
    public static readonly TypeAnswer None = new(null, false, null);

    /// <summary>What a form says: an id, "own" or "leave".</summary>
    public static TypeAnswer Of(string? said, string? maker, string? about) =>
        new(Guid.TryParse(said, out var id) ? id : null, said == "own", maker, said == "leave", about);

    /// <summary>The answer, as far as it is about a name.</summary>
    public TypeAnswer To(string name) => About is null || ModelName.Compare(About, name) == NameMatch.Same ? this : None;
}

/// <summary>A name of a model as it stands on files, and how often.</summary>
public sealed record NameOnFile(TypeKind Kind, string Name, int Count);

/// <summary>What the pages load and keep of the type list.</summary>
public static class TypeQueries
{
    /// <summary>The types the shop knows.</summary>
    public static async Task<TypeList> TypeListAsync(this RivetDb db, CancellationToken stop) =>
        new(await db.Types.AsNoTracking().ToListAsync(stop));

    /// <summary>How often each name of a model stands on the shop's aircraft and the parts that are on them.</summary>
    public static async Task<IReadOnlyList<NameOnFile>> ModelsOnFileAsync(this RivetDb db, CancellationToken stop)
    {
        var aircraft = await db.Aircraft.AsNoTracking().GroupBy(row => row.Type).Select(all => new { Name = all.Key, Count = all.Count() })
            .ToListAsync(stop);
        var parts = await PartsWithModel(db).GroupBy(stay => new { stay.Component.Kind, stay.Component.PartNumber })
            .Select(all => new { all.Key.Kind, Name = all.Key.PartNumber, Count = all.Count() }).ToListAsync(stop);
        return [.. aircraft.Select(row => new NameOnFile(TypeKind.Aircraft, row.Name, row.Count)),
            .. parts.Select(row => new NameOnFile(row.Kind.TypeOf()!.Value, row.Name, row.Count))];
    }

    /// <summary>What bears some names of models: "N0TST engine left", by registration, the first few of each.</summary>
    public static async Task<IReadOnlyList<(TypeKind Kind, string Name, string On)>> BearersAsync(this RivetDb db,
        IReadOnlyCollection<string> names, CancellationToken stop)
    {
        var aircraft = await db.Aircraft.AsNoTracking().Where(row => names.Contains(row.Type)).OrderBy(row => row.Registration)
            .Select(row => new { row.Type, row.Registration }).ToListAsync(stop);
        // The first few of each: of a hose a large fleet has hundreds.
        var parts = await db.Database.SqlQuery<PartBearer>($"""
            SELECT Kind, PartNumber, Name, Position, Registration FROM (
                SELECT c.Kind, c.PartNumber, c.Name, i.Position, a.Registration,
                    ROW_NUMBER() OVER (PARTITION BY c.Kind, c.PartNumber ORDER BY a.Registration) AS Nth
                FROM Installations i JOIN Component c ON c.Id = i.ComponentId JOIN Aircraft a ON a.Id = i.AircraftId
                WHERE i.RemovedAt IS NULL AND c.PartNumber IN (SELECT value FROM json_each({JsonSerializer.Serialize(names)})))
            WHERE Nth <= {ModelsOnFile.MostBearers} ORDER BY Registration
            """).ToListAsync(stop);
        return
        [
            .. aircraft.GroupBy(row => row.Type).SelectMany(all => all.Take(ModelsOnFile.MostBearers))
                .Select(row => (TypeKind.Aircraft, row.Type, row.Registration)),
            .. parts.Select(row => (Kind: EnumNames.Read<ComponentKind>(row.Kind), Row: row)).Where(part => part.Kind.TypeOf() is not null)
                .Select(part => (part.Kind.TypeOf()!.Value, part.Row.PartNumber,
                    $"{part.Row.Registration} {(part.Row.Name is { Length: > 0 } name ? name : part.Kind.InWords())} {part.Row.Position}"
                        .TrimEnd())),
        ];
    }

    private sealed record PartBearer(string Kind, string PartNumber, string Name, string Position, string Registration);

    // Hoses, plugs and the like have a part number and no model.
    private static IQueryable<Installation> PartsWithModel(RivetDb db)
    {
        var kinds = Enum.GetValues<ComponentKind>().Where(kind => kind.TypeOf() is not null).ToList();
        return db.Installations.AsNoTracking()
            .Where(stay => stay.RemovedAt == null && stay.Component.PartNumber != "" && kinds.Contains(stay.Component.Kind));
    }

    /// <summary>What goes on file for a model as it was typed: the list's own name for it, or the answer to "did you mean".</summary>
    /// <param name="db">The shop, within a write.</param>
    /// <param name="kind">What the name names.</param>
    /// <param name="typed">The name as typed; may be empty.</param>
    /// <param name="answer">The answer to the question; <see cref="TypeAnswer.None"/> where none was put yet.</param>
    /// <param name="field">The field that is refused while the question is open.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<(string Name, Refusal? Refusal)> NameOfAsync(this RivetDb db, TypeKind kind, string? typed, TypeAnswer answer,
        string field, CancellationToken stop)
    {
        var name = typed?.Trim() ?? "";
        answer = answer.To(name);
        var types = await db.Types.ToListAsync(stop);
        // One that was put on the list a moment ago, in the same write, counts.
        types.AddRange(db.Types.Local.Except(types));
        var list = new TypeList(types);
        if (name.Length == 0 || answer.Leave)
            return (name, null);
        if (list.Find(kind, name).Type is { } known)
            return (known.Name, null);
        if (answer.Means is { } id)
            return types.Find(type => type.Id == id && type.Kind == kind) is { } meant
                ? (meant.Name, null)
                : (name, new(field, "That type stands on the list no more: choose again."));
        if (!answer.Own)
            return (name, new(field,
                $"“{name}” is on no type list"
                + $"{(list.Find(kind, name).Near is [var near, ..] ? $". Did you mean {near.FullName}?" : ": say below what it is.")}"));
        var (own, refusal) = Own(kind, name, answer.Maker, list);
        if (own is null)
            return (name, refusal! with { Field = field });
        db.Types.Add(own);
        return (own.Name, null);
    }

    /// <summary>
    /// Settles what a name means, wherever it stands. On files it gives way to the list's own name; what a bulletin says stays
    /// as it was issued, and becomes another name of the type.
    /// </summary>
    /// <param name="db">The shop, within a write.</param>
    /// <param name="kind">What the name names.</param>
    /// <param name="name">The name as it stands.</param>
    /// <param name="answer">What it means.</param>
    /// <param name="bulletins">The shop's bulletins: one that comes in meanwhile is asked about by itself.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<Refusal?> SettleAsync(this RivetDb db, TypeKind kind, string name, TypeAnswer answer, BulletinList bulletins,
        CancellationToken stop)
    {
        var types = await db.Types.ToListAsync(stop);
        var list = new TypeList(types);
        if (list.Find(kind, name).Type is { } meanwhile)
            return answer.Means == meanwhile.Id ? null : new("settle", $"“{name}” was settled meanwhile: it is {meanwhile.FullName}.");
        var type = types.Find(one => one.Id == answer.Means && one.Kind == kind);
        if (answer.Means is not null && type is null)
            return new("settle", "That type stands on the list no more: choose again.");
        if (type is null)
        {
            (type, var refusal) = answer.Own ? Own(kind, name, answer.Maker, list) : (null, new("settle", "Choose what it is."));
            if (type is null)
                return refusal! with { Field = "settle" };
            db.Types.Add(type);
        }
        else
        {
            var said = bulletins.All.Any(held => bulletins.UnsettledIn(held)
                .Any(one => one.Kind == kind && ModelName.Compare(one.Name, name) == NameMatch.Same));
            // A slip of the pen is put right and forgotten; what doesn't even look like it is a name that people use.
            if ((said || !list.Find(kind, name).Near.Contains(type)) && type.AlsoCalled(name, list) is { } taken)
                return taken with { Field = "settle" };
        }
        foreach (var aircraft in kind == TypeKind.Aircraft ? await db.Aircraft.ToListAsync(stop) : [])
            if (ModelName.Compare(aircraft.Type, name) == NameMatch.Same)
                aircraft.Describe(aircraft.Registration, type.Name, aircraft.SerialNumber, aircraft.Category, aircraft.Configuration);
        foreach (var part in kind == TypeKind.Aircraft ? [] : await db.Components.Where(part => part.PartNumber != "").ToListAsync(stop))
            if (part.Kind.TypeOf() == kind && ModelName.Compare(part.PartNumber, name) == NameMatch.Same)
                part.Identify(type.Name, part.SerialNumber, part.Name, part.MadeOn);
        return null;
    }

    // "Pellworth Dunlin 2" by Pellworth is a Dunlin 2.
    private static (KnownType? Type, Refusal? Refusal) Own(TypeKind kind, string name, string? maker, TypeList list)
    {
        var by = maker?.Trim() ?? "";
        if (by.Length == 0)
            return (null, new("maker", "Say who makes it, as on its plate."));
        var type = new KnownType(Guid.CreateVersion7(), kind, "", "");
        var refusal = type.Describe(by, name.StartsWith(by + " ", StringComparison.OrdinalIgnoreCase) ? name[by.Length..] : name, [], list);
        return refusal is null ? (type, null) : (null, refusal);
    }

    /// <summary>
    /// A shop from before there was a list: it begins with what the shop has, and what is near to something is asked about.
    /// </summary>
    public static async Task TypesFromFilesAsync(this RivetDb db, CancellationToken stop)
    {
        var files = await db.ModelsOnFileAsync(stop);
        var bulletins = await db.Bulletins.AsNoTracking().ToListAsync(stop);
        db.Types.AddRange(TypeList.FirstOf(files.Select(one => (one.Kind, one.Name)), bulletins.Select(held => held.Bulletin)));
        await db.SaveChangesAsync(stop);
    }

    /// <summary>The types, within a write.</summary>
    public static Task<List<KnownType>> TypesToChangeAsync(this RivetDb db, CancellationToken stop) => db.Types.ToListAsync(stop);

    /// <summary>What bears a type, in words: the first of it; null where nothing does.</summary>
    public static async Task<string?> FirstBearerAsync(this RivetDb db, Guid? type, CancellationToken stop)
    {
        var list = await db.TypeListAsync(stop);
        var names = (await db.ModelsOnFileAsync(stop)).Where(one => list.Find(one.Kind, one.Name).Type?.Id == type).Select(one => one.Name)
            .ToList();
        return names.Count == 0 ? null : (await db.BearersAsync(names, stop)).Select(one => one.On).FirstOrDefault();
    }
}
