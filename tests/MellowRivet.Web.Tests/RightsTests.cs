using System.Net;
using System.Reflection;
using System.Text.RegularExpressions;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>Who may do what, drawn from the endpoints themselves: an address that was added and says nothing is found here.</summary>
public sealed class RightsTests(DemoServer server) : IClassFixture<DemoServer>
{
    private async Task<IReadOnlyList<Address>> AllAsync() =>
        [.. (await EveryAddress.OfAsync(server.Services)).OrderBy(asked => asked.Pattern, StringComparer.Ordinal)];

    private readonly string walk = server.Walk("N04QF").Split('/')[^1], glider = server.FileOf("N0FLD")
        .Split('/')[^1], engine = server.Sheet("N04QF").Split('/')[^1];
    private readonly string photo = server.With(db => db.Discrepancies.AsEnumerable()
        .First(found => found.Number == 1
            && server.Walk("N04QF").EndsWith($"{found.InspectionId}", StringComparison.Ordinal)).Photos[0].Sha256);
    private readonly string bulletin =
        server.With(db => $"{db.Bulletins.AsEnumerable().First(held => held.Bulletin.Number == "PD2-SL-09").Id}");

    private readonly string built = server.FileOf("N0BRM").Split('/')[^1], reading = server.With(db =>
        $"{db.Readings.AsEnumerable().First(one => server.FileOf("N0BRM").EndsWith($"{one.AircraftId}", StringComparison.Ordinal)).Id}");
    private readonly string person = server.With(db => $"{db.People.AsEnumerable().First(one => one.Name.StartsWith("Piet")).Id}");

    private readonly string survey = server.Walk("N0FLD").Split('/')[^1];

    /// <summary>Addresses that a survey alone has.</summary>
    public static bool OfSurvey(string pattern) => pattern.StartsWith("walk/", StringComparison.Ordinal)
        && Regex.IsMatch(pattern, @"/(money|order|survey-report|survey\.(json|csv))$");

    // A real address for a pattern: the trainer's walk, the glider's file.
    private string Fill(Address asked)
    {
        var path = "/" + Regex.Replace(asked.Pattern, @"\{(\w+)[^/]*\}", part => part.Groups[1].Value switch
        {
            "id" => OfSurvey(asked.Pattern) ? survey
                : asked.Pattern.StartsWith("walk", StringComparison.Ordinal)
                ? walk
                : asked.Pattern.Contains("/value/", StringComparison.Ordinal) ? built
                : asked.Pattern.StartsWith("aircraft", StringComparison.Ordinal) ? glider
                : asked.Pattern.StartsWith("people", StringComparison.Ordinal) ? person : bulletin,
            "engine" or "carrier" => engine, "reading" => reading, "kind" => "oil",
                "number" => "1", "sha" or "sha256" => photo, "size" => "thumb", "place" =>
                "airframe", "zone" => "cabin", "sheet" => "lubrication", "key" => "stuck-ring",
            // None came: whoever may look finds none.
            "errand" => Guid.Empty.ToString(),
            var other => throw new InvalidOperationException($"{asked.Name}: what is {other}?"),
        });
        return asked.Handler.Length > 0 ? $"{path}?handler={asked.Handler}" : path;
    }

    // What an address answers to somebody who may, where that is not its page or the way back to it, and why.
    private static readonly Dictionary<string, (HttpStatusCode Status, string Why)> Otherwise = new()
    {
        ["GET /walk/{id:guid}"] = (HttpStatusCode.Redirect, "to where one was"),
        ["GET /aircraft/import/{errand:guid}"] = (HttpStatusCode.NotFound, "no passport came"),
        ["GET /aircraft/{id:guid}/passport?handler=File"] = (HttpStatusCode.NotFound, "none was made"),
        ["GET /documents/{sha256}"] = (HttpStatusCode.NotFound, "no document has that name"),
        ["GET /videos/{sha256}"] = (HttpStatusCode.NotFound, "no video has that name"),
        ["GET /sounds/{sha256}"] = (HttpStatusCode.NotFound, "no sound has that name"),
        ["GET /walk/{id:guid}/fix-list/prices/{key}"] = (HttpStatusCode.NotFound, "no line has that name"),
        ["GET /parts/{id:guid}"] = (HttpStatusCode.NotFound, "no part of the list has that name"),
        ["GET /shelf?handler=File"] = (HttpStatusCode.NotFound, "no file was named"),
        ["GET /outbox?handler=File"] = (HttpStatusCode.NotFound, "no mail was named"),
        ["GET /walk/{id:guid}/fix-list/{number:int}/placard"] = (HttpStatusCode.NotFound, "it is not deferred"),
        ["GET /walk/{id:guid}/{place:regex(^(engine|airframe|bulletins|paper|dear|quick|run)$)}/{zone?}?handler=Judge"] =
            (HttpStatusCode.NotFound, "no task was named"),
        ["GET /walk/{id:guid}/records.pdf"] = (HttpStatusCode.NotFound, "nothing is signed yet"),
        ["POST /share"] = (HttpStatusCode.Forbidden, "it is for the phone's own share sheet, which says so (FoundPagesTests)"),
    };

    // What a fallback for files is, is closed to strangers like whatever says nothing.
    private async Task<IReadOnlyList<Address>> OfTheShopAsync() =>
        [.. (await AllAsync()).Where(asked => asked.OpenTo is null && asked.Pattern != "{**path:file}")];

    [Fact]
    public async Task Every_address_says_who_may_come() =>
        (await OfTheShopAsync()).Where(asked => asked.Needs is null).Select(asked => asked.Name).ShouldBeEmpty();

    [Fact]
    public async Task What_changes_anything_is_open_to_nobody_but_at_the_door_and_by_a_link_of_its_own() =>
        (await AllAsync()).Where(asked => asked.OpenTo is not null && asked.Method == "POST"
            && !asked.Pattern.StartsWith("api/v1/", StringComparison.Ordinal)).Select(asked => asked.Name)
            .ShouldBe(["POST /enter", "POST /enter?handler=As", "POST /first-run", "POST /leave", "POST /owner/{token}",
            "POST /owner/{token}?handler=Choose", "POST /owner/{token}?handler=Many", "POST /owner/{token}?handler=Work"]);

    [Fact]
    public async Task A_stranger_sees_nothing_and_is_sent_to_the_door()
    {
        var stranger = server.Stranger();
        foreach (var asked in await OfTheShopAsync())
        {
            using var answer = asked.Method == "POST" ? await stranger.ForgeAsync(Fill(asked)) : await stranger.ListenAsync(Fill(asked));
            // What only a script asks is told by its status.
            if (answer.StatusCode == HttpStatusCode.Unauthorized && asked.Pattern.StartsWith("device/", StringComparison.Ordinal))
                continue;
            answer.StatusCode.ShouldBe(HttpStatusCode.Redirect, asked.Name);
            answer.Headers.Location!.OriginalString.ShouldContain("/enter", Case.Sensitive, asked.Name);
        }
    }

    [Theory]
    [InlineData("orla", Role.Inspector, Role.ShopAdmin)]
    [InlineData("ines", Role.Mechanic)]
    [InlineData("tamsin", Role.Assistant)]
    [InlineData("perpetua", Role.Owner)]
    public async Task Whoever_has_the_right_gets_an_answer_and_nobody_else(string name, params Role[] roles)
    {
        var visitor = await server.EnterAsync(name);
        var rights = roles.SelectMany(Rights.Of).ToHashSet();
        // What somebody may is asked once, what they may not of each.
        foreach (var asked in (await OfTheShopAsync()).Where(asked => name == "orla" || !rights.Contains(asked.Needs!.Value)))
        {
            var path = Fill(asked);
            using var answer = asked.Method == "POST" ? await visitor.PostAsync(path) : await visitor.ListenAsync(path);
            var may = rights.Contains(asked.Needs!.Value);
            if (!may)
                // What isn't theirs isn't there for an owner (OwnersTests).
                answer.StatusCode.ShouldBe(name == "perpetua" && asked.Through is Through.Walk
                    ? HttpStatusCode.NotFound
                    : HttpStatusCode.Forbidden, $"{name}: {asked.Name}");
            else if (Otherwise.TryGetValue(asked.Name, out var other))
                answer.StatusCode.ShouldBe(other.Status, $"{name}: {asked.Name}, {other.Why}");
            else if (answer.StatusCode == HttpStatusCode.Redirect && asked.Method == "POST")
                // An empty form leads back to its own page, which says what is missing.
                answer.Headers.Location!.OriginalString.ShouldStartWith(string.Join('/', path.Split('?')[0].Split('/').Take(3)),
                    Case.Sensitive, $"{name}: {asked.Name}");
            else if (asked.Method == "POST")
                // An empty form is refused by the names of its fields, or shows its page with what is missing.
                answer.StatusCode.ShouldBeOneOf([HttpStatusCode.UnprocessableEntity, HttpStatusCode.OK], $"{name}: {asked.Name}");
            else
                answer.StatusCode.ShouldBe(HttpStatusCode.OK, $"{name}: {asked.Name}");
        }
    }

    /// <summary>
    /// The table as people read it. Where it differs, what it is now lies beside the tests, as rights.md: look at it, and take it over.
    /// </summary>
    [Fact]
    public async Task The_table_of_who_may_do_what_is_as_it_is_written_down()
    {
        var rows = (await OfTheShopAsync()).GroupBy(asked => asked.Needs!.Value).OrderBy(group => group.Key)
            .Select(
                group =>
                    $"## {group.Key}: "
                    + $"{string.Join(", ", Enum.GetValues<Role>().Where(role => Rights.Of(role).Contains(group.Key))
                        .Select(role => role.InWords()))}\n\n{string.Join('\n', group.Select(asked => $"- `{asked.Name}`"))}\n");
        var open = (await AllAsync()).Where(asked => asked.OpenTo is { } why && !why.StartsWith("styles", StringComparison.Ordinal))
            .Select(asked => $"- `{asked.Name}`: {asked.OpenTo}");
        var table =
            $"# Who may do what\n\nDrawn from the endpoints by `RightsTests`, by the right that each asks for and the roles that have "
            + $"it.\n\n{string.Join('\n', rows)}\n## Open to all\n\n{string.Join('\n', open)}\n";
        File.WriteAllText(Path.Combine(AppContext.BaseDirectory, "rights.md"), table);
        table.Split('\n').ShouldBe(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "docs", "rights.md")).Split('\n'));
    }
}
