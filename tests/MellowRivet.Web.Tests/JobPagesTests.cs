using System.Net;
using MellowRivet.Core.Inspections;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>A job by each role: who takes one, who enters one, and what they are told who may not.</summary>
[Collection(SigningShop.Name)]
public class JobPagesTests(DemoServer server)
{
    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    [Fact]
    public async Task A_mechanic_takes_one_in_two_touches_does_it_and_signs_its_entry()
    {
        var ines = await server.EnterAsync("ines");
        var file = await ines.ReadAsync(server.FileOf("N0TWQ"));
        var page = await ines.ReadAsync(file.QuerySelectorAll(".stations a").Single(link => link.TextContent == "A job")
            .GetAttribute("href")!);
        var form = page.QuerySelectorAll(".job-offers form")
            .First(form => form.TextContent.Contains("Main tyre", StringComparison.Ordinal));
        string Field(string name) => form.QuerySelector($"input[name={name}]")!.GetAttribute("value")!;
        var taken = await ines.PostAsync($"{server.FileOf("N0TWQ")}/job", ("post", Field("post")), ("title", Field("title")),
            ("zone", Field("zone")));
        var walk = taken.Headers.Location!.OriginalString;
        (await ines.GetAsync(walk)).Headers.Location!.OriginalString.ShouldBe($"{walk}/fix-list/1");
        (await ines.ReadAsync($"{walk}/fix-list/1")).QuerySelectorAll(".station > a").Select(link => link.TextContent.Trim())
            .ShouldBe(["Engine", "Fix list", "Close"]);

        // While it is in work nothing else is taken, and a helper takes none.
        (await Visitor.ParseAsync(await ines.PostAsync($"{server.FileOf("N0TWQ")}/job", Post(), ("title", "Oil"), ("zone", "airframe"))))
            .Body!.TextContent.ShouldContain("is in work on it");
        (await (await server.EnterAsync("tamsin"))
            .PostAsync($"{server.FileOf("N0TWQ")}/job", Post(), ("title", "Oil"), ("zone", "airframe")))
            .StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        (await ines.PostAsync($"{walk}/fix-list/1?handler=Correct", Post(), ("action", "Tyre and tube changed."), ("kind", "Replaced"),
            ("reference", "Corrin manual 32-40"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var close = await ines.ReadAsync($"{walk}/close");
        close.QuerySelector(".entry-draft")!.TextContent.ShouldContain("Tyre and tube changed. Ref. Corrin manual 32-40.");
        (await ines.PostAsync($"{walk}/close", Post(), ("read", await ines.ReadEntriesAsync(walk)), ("password", Demo.DemoShop.Password)))
            .StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var entry = (await ines.ReadAsync($"{walk}/records")).QuerySelectorAll(".entry").ShouldHaveSingleItem();
        entry.TextContent.ShouldContain("approved for return to service as far as that work goes");
        // The unairworthy annual is still the aircraft's last inspection.
        (await ines.ReadAsync("/")).QuerySelectorAll("tr").Single(row => row.TextContent.Contains("N0TWQ", StringComparison.Ordinal))
            .TextContent.ShouldContain("1 airworthiness open since");
    }

    [Fact]
    public async Task One_taken_by_mistake_is_given_up_and_the_due_item_stays_due()
    {
        var ines = await server.EnterAsync("ines");
        var form = (await ines.ReadAsync($"{server.FileOf("N0FLD")}/job")).QuerySelectorAll(".job-line form, form.job-line")
            .First(line => line.TextContent.Contains("Wing fold pins", StringComparison.Ordinal));
        var taken = await ines.PostAsync($"{server.FileOf("N0FLD")}/job", Post(),
            ("due", form.QuerySelector("input[name=due]")!.GetAttribute("value")!));
        var walk = taken.Headers.Location!.OriginalString;
        (await ines.ReadAsync($"{walk}/close")).Body!.TextContent.ShouldContain("Wing fold pins: measure for wear: not done yet");
        (await ines.PostAsync($"{walk}/close?handler=GiveUp", Post())).Headers.Location!.OriginalString
            .ShouldBe($"{server.FileOf("N0FLD")}/job");
        server.With(db => db.Inspections.AsNoTracking().Count(row => row.Kind == InspectionKind.Job && row.State == InspectionState.InWork
            && row.WorkOrder.Length > 0 && walk.EndsWith(row.Id.ToString()))).ShouldBe(0);
    }

    // 14 CFR 43.3(g), 43.7(f), from memory: on the list, by its pilot, on their own aircraft.
    [Fact]
    public async Task A_pilot_enters_preventive_maintenance_on_their_own_aircraft_and_nothing_else()
    {
        var perpetua = await server.EnterAsync("perpetua");
        (string, string)[] done = [("zone", "airframe"), ("reference", "type manual 33-40"), ("password", Demo.DemoShop.Password)];
        async Task<string> SaidAsync(string aircraft, params (string, string)[] form) => (await Visitor.ParseAsync(await perpetua.PostAsync(
            $"{server.FileOf(aircraft)}/job?handler=Preventive", [Post(), .. done, .. form]))).Body!.TextContent;
        (await perpetua.GetAsync($"{server.FileOf("N0TWQ")}/job")).StatusCode.ShouldBe(HttpStatusCode.NotFound, "it isn't theirs");
        (await SaidAsync("N0TWQ", ("title", "Landing light bulb"), ("action", "Landing light bulb replaced")))
            .ShouldNotContain("Landing light");
        (await SaidAsync("N0FLD", ("title", "Cylinder"), ("action", "Cylinder taken off, exhaust valve ground")))
            .ShouldContain("a mechanic");
        (await SaidAsync("N0FLD", ("title", "Landing light bulb"), ("action", ""))).ShouldContain("Say what was done");
        var signed = await perpetua.PostAsync($"{server.FileOf("N0FLD")}/job?handler=Preventive",
            [Post(), .. done, ("title", "Landing light bulb"), ("action", "Landing light bulb replaced."), ("partNumber", "LB-4509")]);
        signed.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var entry = (await perpetua.ReadAsync(signed.Headers.Location!.OriginalString)).QuerySelectorAll(".entry").ShouldHaveSingleItem();
        entry.TextContent.ShouldContain("Preventive maintenance of this aircraft: landing light bulb.");
        entry.TextContent.ShouldContain("by the pilot who owns or operates the aircraft");
        entry.TextContent.ShouldContain("pilot, owner or operator, QF 71124");
    }
}
