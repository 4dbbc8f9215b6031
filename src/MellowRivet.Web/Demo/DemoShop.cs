using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Tools;
using MellowRivet.Store;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>The invented shop of the demo: Hob &amp; Daughters at Quillmoor Field. Nothing in it is real.</summary>
public static class DemoShop
{
    /// <summary>Everyone's password in the demo.</summary>
    public const string Password = "quillmoor-field";

    private static readonly (string SignInName, string Name, string Initials, Role[] Roles, Certificate[] Certificates)[] Staff =
    [
        ("orla", "Orla Hob", "OH", [Role.Inspector, Role.ShopAdmin],
            [new(CertificateKind.InspectionAuthorization, "QF 30117"), new(CertificateKind.Mechanic, "QF 30117")]),
        ("ines", "Ines Calloway", "IC", [Role.Mechanic], [new(CertificateKind.Mechanic, "QF 41882")]),
        ("wim", "Wim Raskelf", "WR", [Role.Repairman], [new(CertificateKind.RepairmanLightSportMaintenance, "QF 52240")]),
        ("tamsin", "Tamsin Bexwell", "TB", [Role.Assistant], []),
        ("piet", "Piet Oduvane", "PO", [Role.Assistant], []),
        ("perpetua", "Perpetua Lorne", "PL", [Role.Owner], [new(CertificateKind.RepairmanExperimentalBuilder, "QF 60031", "OK-07"),
            new(CertificateKind.Pilot, "QF 71124")]),
        ("casimir", "Casimir Wend", "CW", [Role.Owner], [new(CertificateKind.Pilot, "QF 80655")]),
    ];

    public static IEnumerable<string> WhoCanEnter() =>
    [
        $"Enter as any of these; the password is {Password}",
        .. Staff.Select(person =>
            $"  {person.SignInName,-9} {person.Name}, {string.Join(", ", person.Roles.Select(role => role.InWords()))}"),
    ];

    public static int Order(string signInName) => Array.FindIndex(Staff, person => person.SignInName == signInName);

    public static async Task MakeAsync(IServiceProvider services, bool big, CancellationToken stop)
    {
        var db = services.GetRequiredService<RivetDb>();
        var users = services.GetRequiredService<UserManager<Account>>();

        var people = Staff.ToDictionary(person => person.SignInName,
            person => new Person(Guid.CreateVersion7(), person.Name, person.Initials, person.Roles, person.Certificates));
        db.People.AddRange(people.Values);
        await db.SaveChangesAsync(stop);
        // One hash for everyone: they share the one password, and hashing it is what takes the time.
        var hash = users.PasswordHasher.HashPassword(new(), Password);
        foreach (var (signInName, person) in people)
            Check(await users.CreateAsync(new()
                { Id = Guid.CreateVersion7(), UserName = signInName, PersonId = person.Id, PasswordHash = hash,
                    SecurityStamp = Guid.NewGuid().ToString() }));

        var history = new DemoHistory(services, people) { Tools = Tools(services.GetRequiredService<TimeProvider>().Today()) };
        db.Tools.AddRange(history.Tools);
        var shop = new Shop();
        shop.Work(DemoHistory.House);
        db.Shop.Add(shop);
        db.Types.AddRange(Types());
        await db.SaveChangesAsync(stop);
        await DemoTrainer.MakeAsync(history, stop);
        await DemoOthers.MakeAsync(history, stop);
        await DemoTwin.MakeAsync(history, stop);
        await DemoGlider.MakeAsync(history, stop);
        await DemoBulletins.MakeAsync(history, services.GetRequiredService<DataFolder>(), stop);
        await WhoseAsync(db, people, history.Today, stop);
        await DemoPlan.MakeAsync(history, stop);
        await DemoSurveys.MakeAsync(history, stop);
        if (big)
            await BigShop.MakeAsync(history, services.GetRequiredService<DataFolder>(), stop);
    }

    // Several each way: one who has two, two who share one, and one who sold theirs.
    private static async Task WhoseAsync(RivetDb db, Dictionary<string, Person> people, DateOnly today, CancellationToken stop)
    {
        var fleet = await db.Aircraft.ToDictionaryAsync(row => row.Registration, row => row.Id, stop);
        var tracked = await db.People.ToDictionaryAsync(person => person.Id, stop);
        (string Who, string Registration, int From, int? Until)[] owned =
        [
            ("perpetua", "N0BRM", -2_900, null), ("perpetua", "N0FLD", -900, null), ("casimir", "N0FLD", -900, null),
            ("casimir", "N0TWQ", -1_400, null), ("casimir", "N0BRM", -4_000, -2_901),
        ];
        foreach (var (who, registration, from, until) in owned)
            if (tracked[people[who].Id].Own(new(fleet[registration], today.AddDays(from), until is { } days ? today.AddDays(days)
                : null)) is { } wrong)
                throw new InvalidOperationException(wrong.Message);
        // One that ends soon is reminded of.
        tracked[people["ines"].Id].Hold(new(CertificateKind.PermitInspector, "QF 41882-P", null, today.AddDays(41)));
        await db.SaveChangesAsync(stop);
    }

    // All but one model that a bulletin names, and all but one that is on file: both are asked about.
    private static IEnumerable<KnownType> Types()
    {
        (TypeKind Kind, string Maker, string Models, string[] Aliases)[] types =
        [
            (TypeKind.Aircraft, "Pellworth", "Dunlin 2", ["PD2"]), (TypeKind.Aircraft, "Pellworth", "Dunlin 4", ["PD4"]),
            (TypeKind.Aircraft, "Ostrand", "Corrin 4", []), (TypeKind.Aircraft, "Ostrand", "Corrin 6", ["OC6"]),
            (TypeKind.Aircraft, "Osmund", "Kestrelet", []), (TypeKind.Aircraft, "Brindle", "Mote LS", []),
            (TypeKind.Aircraft, "Lindqvale", "Tarn M", ["Tarn Motor"]),
            .. new[] { "TF4-160", "TF4-180", "SF6-260", "LQ4-A", "LQ4-B", "TS2" }
                .Select(model => (TypeKind.Engine, "Tarn and Field Engines", model, Array.Empty<string>())),
            .. new[] { "WP-52-4F", "WP-52-6F", "WP-74", "WP-76C" }
                .Select(model => (TypeKind.Propeller, "Wenbury Propellers", model, Array.Empty<string>())),
            .. new[] { "AL-20", "BT-25", "LT-406", "SP-211", "TX-30", "TX-31" }
                .Select(model => (TypeKind.Appliance, "Hallow Instruments", model, Array.Empty<string>())),
            (TypeKind.Appliance, "Cressing Fuel Systems", "CV-64", []),
        ];
        return types.Select(type => new KnownType(Guid.CreateVersion7(), type.Kind, type.Maker, type.Models, type.Aliases));
    }

    private static List<Tool> Tools(DateOnly today)
    {
        (string Name, string Number, int? CalibratedMonths, double? Length, TorqueRange? Range)[] tools =
        [
            ("Torque wrench 50–250 in-lb", "T-04", 7, 10, new(50, 250, Unit.InchPound)),
            ("Torque wrench 20–100 ft-lb", "T-07", -1, 18, new(20, 100, Unit.FootPound)),
            ("Torque wrench 150–750 in-lb", "T-09", 4, 12, new(150, 750, Unit.InchPound)), ("Cable tensiometer", "G-02", 9, null, null),
            ("Mirror, long", "M-11", null, null, null),
            ("Torch, headband", "L-03", null, null, null), ("Screwdriver, long, cross", "S-21", null, null, null),
            ("Socket set 1/4, 24 pieces", "K-02", null, null, null), ("Safety-wire pliers", "P-05", null, null, null),
            ("Borescope", "B-01", null, null, null),
        ];
        return [.. tools.Select(tool =>
        {
            var made = new Tool(Guid.CreateVersion7());
            made.Describe(tool.Name, tool.Number, tool.Range is not null, tool.CalibratedMonths is { } months
                ? today.AddMonths(months)
                : null, tool.Length, tool.Range);
            return made;
        })];
    }

    /// <summary>An engine with its cylinders and a propeller on an aircraft.</summary>
    internal static Component Fit(Aircraft aircraft, EngineLayout layout, CompressionSchool school, string engineSerial,
        string propellerSerial, Hours? ownTime,
        Ignition ignition, string position = "", string part = "", string propeller = "")
    {
        var engine = new Component(Guid.CreateVersion7(), ComponentKind.Engine, part, engineSerial)
            { LayoutKey = layout.Key, Ignition = ignition };
        engine.JudgeCompressionBy(new(school));
        aircraft.InstallIgnition(aircraft.InstallEngine(engine, position, default, ownTime), engineSerial);
        aircraft.Install(new(Guid.CreateVersion7(), ComponentKind.Propeller, propeller, propellerSerial), position, default,
            default(Hours));
        return engine;
    }

    private static void Check(IdentityResult made)
    {
        if (!made.Succeeded)
            throw new InvalidOperationException(string.Join(" ", made.Errors.Select(error => error.Description)));
    }
}
