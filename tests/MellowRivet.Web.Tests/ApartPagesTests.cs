using System.Net;
using AngleSharp.Dom;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>Issue 27, line 4: one at the desk, one away with a phone, on the walk of the amateur-built.</summary>
public class ApartPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private const double HourAgo = 3_600;

    private string Walk => server.Walk("N0BRM");

    private Guid WalkId => Guid.Parse(Walk["/walk/".Length..]);

    private Inspection Inspection() =>
        server.With(db => db.Inspections.AsNoTracking().Include(row => row.Readings).Single(row => row.Id == WalkId));

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private static string Of(IElement form, string name) => form.QuerySelector($"input[name={name}]")!.GetAttribute("value") ?? "";

    // As the page had it before either of them said anything.
    private static (string, string)[] Fields(IElement form, string value, params string[] names) =>
        [Post(), ("reading", $"{Guid.NewGuid()}"), ("value", value), .. names.Append("seen").Select(name => (name, Of(form, name)))];

    [Fact]
    public async Task A_value_that_a_phone_brings_stands_beside_that_of_the_desk_until_somebody_chooses()
    {
        var ines = await server.EnterAsync("ines");
        var piet = await server.EnterAsync("piet");
        var run = server.With(db => $"{Walk}/engine-sheet/run/{db.Aircraft.AsNoTracking().WithParts()
            .Single(row => row.Registration == "N0BRM").Engines.Single().ComponentId}");
        var form = (await piet.ReadAsync(run)).QuerySelectorAll("form.sheet-value")
            .First(one => (Of(one, "of"), Of(one, "position"), Of(one, "seen")) == ("static-rpm", "after", ""));
        var action = form.GetAttribute("action")!;
        (await ines.PressAsync(action, Fields(form, "4800", "of", "position"))).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await piet.BringAsync(action, HourAgo, 0, Fields(form, "3900", "of", "position"))).StatusCode.ShouldBe(HttpStatusCode.OK);

        var there = (await ines.ReadAsync(run)).QuerySelector("#said-static-rpm-after .said-apart")!;
        foreach (var words in new[] { "4800 rpm", "3900 rpm", "Ines", "Piet" })
            there.TextContent.ShouldContain(words);
        (await ines.ReadAsync($"{Walk}/close")).QuerySelector($"a.block[href='{Walk}/apart']")!.TextContent
            .ShouldContain("two answers, said apart (“4800 rpm” and “3900 rpm”)");
        var two = Inspection().StillApart.ShouldHaveSingleItem();
        two.OtherBy.At.ShouldBe(server.Clock.GetUtcNow().AddHours(-1), TimeSpan.FromMinutes(5));

        // Chosen is now, whatever a device says of its clock; and back where it stands.
        (await piet.ReadAsync(run)).QuerySelector(".said-apart button").ShouldBeNull("somebody with a certificate chooses");
        var chosen = await ines.BringAsync($"{Walk}/apart?handler=Choose", HourAgo, 0, Post(), ("two", $"{two.Id}"), ("chosen", "Other"),
            ("back", run));
        (await chosen.Content.ReadAsStringAsync()).ShouldContain(run);
        var page = await ines.ReadAsync(run);
        page.QuerySelector(".said-apart").ShouldBeNull();
        page.QuerySelector("#value-static-rpm-after")!.GetAttribute("value").ShouldBe("3900");
        Inspection().Apart.Single().ChosenBy!.At.ShouldBe(server.Clock.GetUtcNow(), TimeSpan.FromMinutes(5));
        var story = (await ines.ReadAsync($"{Walk}/apart")).QuerySelector("main")!.TextContent;
        string.Join(' ', story.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)).ShouldContain("not 4800 rpm");
        story.ShouldContain("by the device’s clock, arrived");
        (await ines.PostAsync($"{Walk}/apart?handler=Choose", Post(), ("two", $"{two.Id}"), ("chosen", "Stays"),
            ("back", "//else.example"))).StatusCode.ShouldBe(HttpStatusCode.OK, "somebody has chosen already, and the page says so");
    }

    [Theory]
    [InlineData(HourAgo, 0, 60)]
    [InlineData(86_400, -2, 0)] // the phone's clock was set by a day between saying and sending: it stands as it arrives
    [InlineData(-86_400, 0, 0)]
    [InlineData(20, 0, 0)] // on its way
    [InlineData(1e12, 0, 0)]
    public async Task It_stands_with_the_time_it_was_said_at_where_that_can_be_told(double ago, int drawnHoursAgo, int minutes)
    {
        var piet = await server.EnterAsync("piet");
        var words = $"Said {ago} s ago";
        var drawn = drawnHoursAgo == 0 ? 0 : server.Clock.GetUtcNow().AddHours(drawnHoursAgo).ToUnixTimeMilliseconds();
        (await piet.BringAsync($"{Walk}/find", ago, drawn, Post(), ("what", words), ("zone", "tail"), ("class", "Recommended")))
            .IsSuccessStatusCode.ShouldBeTrue();
        var found = server.With(db => db.Discrepancies.AsNoTracking().Single(row => row.InspectionId == WalkId && row.What == words));
        found.FoundAt.ShouldBe(server.Clock.GetUtcNow().AddMinutes(-minutes), TimeSpan.FromMinutes(5));
    }

    [Fact]
    public async Task A_plug_that_was_moved_at_the_desk_keeps_what_a_phone_measured_on_it()
    {
        var ines = await server.EnterAsync("ines");
        var piet = await server.EnterAsync("piet");
        var page = await piet.ReadAsync($"{Walk}/plugs?hole=2T");
        var form = page.QuerySelector("form.step-ohms")!;
        (await ines.PostAsync($"{Walk}/plugs?handler=Move", Post(), ("from", "2T"), ("to", "3T"))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        (await piet.BringAsync(form.GetAttribute("action")!, HourAgo, 0, Fields(form, "2345", "hole", "plug", "step"))).StatusCode
            .ShouldBe(HttpStatusCode.OK);
        Inspection().Readings.Single(reading => reading.Value == 2345).ComponentId.ShouldBe(Guid.Parse(Of(form, "plug")));
        (await ines.ReadAsync($"{Walk}/plugs?hole=3T")).QuerySelector("form.step-ohms input[name=value]")!.GetAttribute("value")
            .ShouldBe("2345");
        (await piet.BringAsync(form.GetAttribute("action")!, HourAgo, 0,
            [.. Fields(form, "1", "hole", "step"), ("plug", $"{Guid.NewGuid()}")])).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task What_two_found_is_offered_to_be_tied_and_stands_once_then()
    {
        var ines = await server.EnterAsync("ines");
        var piet = await server.EnterAsync("piet");
        foreach (var (who, what) in new[] { (ines, "Elevator hinge bolt loose"), (piet, "Loose bolt at the elevator hinge") })
            (await who.TellAsync($"{Walk}/find", Post(), ("what", what), ("zone", "tail"), ("where", "left hinge"),
                ("class", "Airworthiness"))).IsSuccessStatusCode.ShouldBeTrue();
        var (first, second) = server.With(db =>
        {
            var found = db.Discrepancies.AsNoTracking().Where(row => row.InspectionId == WalkId && row.What.Contains("hinge")).ToList();
            return (found.Single(row => row.What.StartsWith("Elevator")), found.Single(row => row.What.StartsWith("Loose")));
        });
        (await ines.ReadAsync($"{Walk}/fix-list")).Body!.TextContent.ShouldContain($"perhaps the same as {first.Number:00}");
        var here = $"{Walk}/fix-list/{second.Number}";
        (await ines.ReadAsync(here)).QuerySelector($"form[action='{here}?handler=Twin'] button")!.GetAttribute("value")
            .ShouldBe($"{first.Id}");
        (await ines.PostAsync($"{here}?handler=Twin", Post(), ("twin", $"{first.Id}"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync(here)).Body!.TextContent.ShouldContain($"The same as");
        (await ines.ReadAsync($"{Walk}/fix-list/{first.Number}")).QuerySelector(".notes")!.TextContent.ShouldContain(second.What);
        (await ines.PostAsync($"{here}?handler=Twin", Post(), ("twin", $"{first.Id}"))).StatusCode.ShouldBe(HttpStatusCode.OK,
            "it is settled: nothing to tie");
    }
}
