using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>An inspection is lent from page to page: a page that changed what it was lent would change what the next write keeps.</summary>
public class AtHandTests(DemoServer server) : IClassFixture<DemoServer>
{
    // The trainer's walk has something of everything: plugs, logs, found things with photos, a cylinder that wants another try.
    [Fact]
    public async Task No_page_of_a_walk_changes_what_it_was_lent()
    {
        var ines = await server.EnterAsync("ines");
        var walk = server.Walk("N04QF");
        List<string> pages = [$"{walk}/arrive"];
        for (var at = 0; at < pages.Count; at++)
        {
            var answer = await ines.GetAsync(pages[at]);
            if (answer.Content.Headers.ContentType?.MediaType != "text/html")
                continue;
            // One of each kind of page is enough: a zone, a task, a plug is like another.
            foreach (var href in (await Visitor.ParseAsync(answer)).QuerySelectorAll($"a[href^='{walk}/']").Select(link => link.GetAttribute("href")!.Split('#')[0]))
                if (!pages.Contains(href) && pages.Count(page => KindOf(page) == KindOf(href)) < 3)
                    pages.Add(href);
        }
        pages.Count.ShouldBeGreaterThan(30);

        var id = Guid.Parse(walk["/walk/".Length..]);
        var lent = server.Services.GetRequiredService<JobsAtHand>().Take(id).ShouldNotBeNull();
        using var scope = server.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<RivetDb>();
        db.AttachRange(lent.Aircraft, lent.Inspection);
        var held = db.ChangeTracker.Entries().ToList();
        held.Count(entry => entry.Entity is InspectionTask).ShouldBeGreaterThan(80);
        held.Select(entry => entry.Entity.GetType()).Distinct().ShouldBe([typeof(Aircraft), typeof(Installation), typeof(Component), typeof(Inspection), typeof(InspectionTask), typeof(Discrepancy), typeof(Reading), typeof(CompressionTest)], ignoreOrder: true);
        foreach (var entry in held)
        {
            var kept = (await entry.GetDatabaseValuesAsync()).ShouldNotBeNull();
            foreach (var column in entry.Properties)
                column.Metadata.GetValueComparer().Equals(column.CurrentValue, kept[column.Metadata]).ShouldBeTrue($"{entry.Metadata.ClrType.Name}.{column.Metadata.Name}");
        }
    }

    private static string KindOf(string page) => string.Join('/', page.Split('?')[0].Split('/').Skip(3).Take(2).Select(part => int.TryParse(part, out _) ? "n" : part))
        + (page.Contains('?', StringComparison.Ordinal) ? $"?{page.Split('?')[1].Split('=')[0]}" : "");
}
