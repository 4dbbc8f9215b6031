using System.Text.RegularExpressions;

namespace MellowRivet.Web.Tests;

/// <summary>How the sources read: lines that fit a screen, files that fit a head, and house words that are true.</summary>
public class SourceTests
{
    private const int MostColumns = 140, MostLines = 320;

    private static readonly string[] Languages = [".cs", ".cshtml", ".js", ".mjs", ".css"];

    // EF Core writes these by itself.
    private static bool IsGenerated(string file) =>
        file.Contains("/Migrations/", StringComparison.Ordinal) || file.Contains("/Generated/", StringComparison.Ordinal);

    private static IEnumerable<string> Written =>
        SourceTree.Files("src", "tests", "tools").Where(file => Languages.Contains(Path.GetExtension(file)) && !IsGenerated(file));

    [Fact]
    public void A_line_has_140_columns_at_most() =>
        Written.SelectMany(file => SourceTree.Lines(file).Index().Where(line => line.Item.Length > MostColumns)
            .Select(line => $"{file}:{line.Index + 1}")).ShouldBeEmpty();

    [Fact]
    public void A_file_has_about_300_lines_at_most() =>
        Written.Where(file => SourceTree.Lines(file).Length > MostLines).ShouldBeEmpty();

    // What a newcomer is told to open is there: every path in the page about the house.
    [Fact]
    public void The_house_has_the_rooms_that_its_page_names()
    {
        var named = Regex.Matches(SourceTree.Read("docs/house.md"), "`((?:src|shelf|docs|tools)/[^`]*)`")
            .Select(path => path.Groups[1].Value.Split(' ')[0]).ToList();
        named.Count.ShouldBeGreaterThan(25);
        named.Where(path => !File.Exists(Path.Combine(SourceTree.Root, path)) && !Directory.Exists(Path.Combine(SourceTree.Root, path)))
            .ShouldBeEmpty();
    }

    // A script makes elements for what only the device knows: what waits on it, a sketch, the list of keys. All else the shop makes.
    [Fact]
    public void No_script_rebuilds_what_the_server_makes() =>
        SourceTree.Files("src").Where(file => file.EndsWith(".js", StringComparison.Ordinal)
                && Regex.IsMatch(SourceTree.Read(file), @"createElement|insertAdjacentHTML|outerHTML ="))
            .Select(Path.GetFileName).ShouldBe(["page.js", "shortcuts.js"], ignoreOrder: true);

    [Fact]
    public void There_is_something_to_look_at() => Written.Count().ShouldBeGreaterThan(500);
}
