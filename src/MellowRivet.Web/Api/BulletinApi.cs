using System.Globalization;
using System.Text;
using System.Text.Json;
using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Handover;

namespace MellowRivet.Web.Api;

/// <summary>
/// Bulletins through the open interface: whether a rule applies, torques printed in two units, the simulated
/// service, and what leaves the shop.
/// </summary>
internal static class BulletinApi
{
    private const int MostFacts = 500;

    public static void MapBulletins(this WebApplication app)
    {
        var open = app.MapGroup("/api/v1").RequireRateLimiting("bench").OpenToAll("arithmetic: it keeps and reads nothing of the shop");
        open.MapPost("/bulletins/applicability", (HttpRequest request) => BenchBody.AnswerAsync<ApplicabilityCall>(request, Applies))
            .Accepts<ApplicabilityCall>("application/json").Produces<ApplicabilityAnswer>().ProducesValidationProblem()
            .WithName("BulletinApplicability")
            .WithSummary(
                "Whether a bulletin’s rule applies to some facts: applies, does not apply, or can’t tell yet, "
                + "with the facts that are missing.");
        open.MapPost("/bench/torque-pair", (HttpRequest request) => BenchBody.AnswerAsync<TorquePairCall>(request, Pair))
            .Accepts<TorquePairCall>("application/json").Produces<TorquePairAnswer>().ProducesValidationProblem()
            .WithName("BenchTorquePair").WithSummary("Whether a torque that is printed in two units agrees with itself.");
        open.MapGet("/bulletins/feed", async (DateOnly? since, IBulletinService service, TimeProvider clock, CancellationToken stop) =>
        {
            var (bulletins, fault) = await service.SinceAsync(since ?? DateOnly.MinValue, clock.Today(), stop);
            return fault is null ? Results.Text(BulletinFile.ToJson(bulletins), "application/json", Encoding.UTF8)
                : Results.Problem(statusCode: StatusCodes.Status503ServiceUnavailable, title: fault);
        }).OpenToAll("what the simulated service gives out: nothing of the shop").WithName("BulletinFeed")
            .WithSummary("What the simulated bulletin service gave out after a day: ?since=2026-11-01.");
        app.MapGet("/schemas/bulletin-1.json", () => Results.Text(BulletinFile.Schema(), "application/schema+json"))
            .OpenToAll("a published format").ExcludeFromDescription();
        app.MapGet("/bulletins.json",
            async (RivetDb db, CancellationToken stop) =>
                Results.File(Encoding.UTF8.GetBytes(BulletinFile.ToJson((await db.AllBulletinsAsync(stop)).Select(held => held.Bulletin))),
                    "application/json", "bulletins.json"))
            .Needs(Right.Look).ExcludeFromDescription();
        app.MapGet("/bulletins/{id:guid}/file.json",
            async (Guid id, RivetDb db, CancellationToken stop) => await db.BulletinAsync(id, stop) is { } held
            ? Results.File(Encoding.UTF8.GetBytes(BulletinFile.ToJson(held.Bulletin)), "application/json",
                $"{string.Concat(held.Bulletin.Title.Where(letter => char.IsAsciiLetterOrDigit(letter) || letter is '-' or '.'))}.json")
            : Results.NotFound()).Needs(Right.Look).OwnersSee(Through.Nothing).ExcludeFromDescription();
        app.MapGet("/aircraft/{id:guid}/bulletins.csv", StatusAsync).Needs(Right.Look).OwnersSee(Through.Aircraft).ExcludeFromDescription();
    }

    public static void MapDocuments(this WebApplication app) =>
        app.MapGet("/documents/{sha256}", (string sha256, DocumentFiles documents, HttpContext context) =>
        {
            if (documents.Find(sha256) is not { } file)
                return Results.NotFound();
            context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            // Saved, not shown: what a document carries inside never runs on this site.
            return Results.File(file.Path, file.Type,
                $"{sha256[..12]}.{file.Type[(file.Type.IndexOf('/', StringComparison.Ordinal) + 1)..]}");
        }).Needs(Right.Look).OwnersSee(Through.Nothing).ExcludeFromDescription();

    private static ApplicabilityAnswer? Applies(ApplicabilityCall call, Problems problems)
    {
        Rule? rule = null;
        if (call.Rule is not { ValueKind: JsonValueKind.Object } json)
            problems.Add("rule",
                "A rule is wanted: { \"all\": [ … ] }, { \"any\": [ … ] }, { \"not\": … }, or { \"fact\": "
                + "\"engine.serial\", \"in\": \"E-1 to E-9\" }.");
        else
            try
            {
                rule = RuleJson.Read(json);
            }
            catch (JsonException problem)
            {
                problems.Add("rule", problem.Message);
            }
        Dictionary<string, string?> facts = [];
        if (call.Facts is { ValueKind: JsonValueKind.Object } given)
            Flatten(given, "", facts, problems);
        else if (call.Facts is { ValueKind: not JsonValueKind.Null })
            problems.Add("facts", "An object is wanted: facts by their names, what isn’t known null or left out.");
        if (problems.Any)
            return null;
        var answer = rule!.Of(new GivenFacts(facts));
        return new(answer.Answer, answer.Missing, answer.Because);
    }

    // Facts by their whole names, or nested: { "engine": { "serial": "E-1" } }.
    private static void Flatten(JsonElement given, string under, Dictionary<string, string?> facts, Problems problems)
    {
        foreach (var member in given.EnumerateObject())
        {
            var name = under.Length == 0 ? member.Name : $"{under}.{member.Name}";
            if (facts.Count > MostFacts)
            {
                problems.Add("facts", $"Up to {MostFacts} facts are wanted.");
                return;
            }
            switch (member.Value.ValueKind)
            {
                case JsonValueKind.Object:
                    Flatten(member.Value, name, facts, problems);
                    break;
                case JsonValueKind.Array:
                    problems.Add($"facts.{name}", "Words, a number, true or false, or null.");
                    break;
                default:
                    facts[name] = member.Value.ValueKind switch { JsonValueKind.String => member.Value.GetString(), JsonValueKind.True =>
                        YesNo.Yes, JsonValueKind.False => YesNo.No, JsonValueKind.Null => null, _ => member.Value.GetRawText() };
                    break;
            }
        }
    }

    public static TorquePairAnswer? Pair(TorquePairCall call, Problems problems)
    {
        if (call.Printed is not { Length: <= 200 } printed || TorquePair.Judge(printed) is not { } judgement)
        {
            problems.Add("printed", "Two torques in one line are wanted, each with its unit: 17 N·m (150 in-lb).");
            return null;
        }
        return new([.. TorquePair.Read(printed)
            .Select(torque => new PrintedTorqueAnswer(torque.Value, torque.Unit.Symbol,
                torque.Unit.To(Core.Measures.Unit.NewtonMetre, torque.Value)))], JudgementAnswer.Of(judgement));
    }

    private static async Task<IResult> StatusAsync(Guid id, RivetDb db, ShopBoard board, CancellationToken stop)
    {
        if (await db.PlateAsync(id, stop) is not { } aircraft)
            return Results.NotFound();
        var research = await board.ResearchAsync(id, stop);
        return Results.File(TableWriter.Write(research.Lines.Select(line => new
            {
                issuer = line.Bulletin.Issuer,
                number = line.Bulletin.Number,
                revision = line.Bulletin.Revision,
                kind = line.Bulletin.Kind.InWords(),
                subject = line.Bulletin.Subject,
                on = line.Subject,
                state = line.State.InWords(),
                force = line.Force,
                why = line.Why,
                method = line.Last?.Method,
                doneOn = line.Last?.On.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                doneHours = line.Last?.Hours,
                nextDate = line.Due?.Status.Limb(Core.Due.LimbKind.Calendar)?.DueOn?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                nextHours = line.Due?.Status.Limb(Core.Due.LimbKind.Hours)?.DueAt,
                status = RecordWriter.StatusOf(line),
            })), "text/csv", $"bulletins-{aircraft.Registration}.csv");
    }
}

internal sealed record ApplicabilityCall(JsonElement? Rule, JsonElement? Facts);

internal sealed record ApplicabilityAnswer(RuleAnswer Answer, IReadOnlyList<string> Missing, IReadOnlyList<string> Because);

internal sealed record TorquePairCall(string? Printed);

internal sealed record TorquePairAnswer(IReadOnlyList<PrintedTorqueAnswer> Torques, JudgementAnswer Judgement);

internal sealed record PrintedTorqueAnswer(double Value, string Unit, double NewtonMetres);
