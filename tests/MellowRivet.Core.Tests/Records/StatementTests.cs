using System.Text.RegularExpressions;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

/// <summary>Every statement that can be signed, printed and read.</summary>
public partial class StatementTests
{
    private static readonly RulePack[] Packs =
        [.. new[] { "us", "permit-scheme" }
            .Select(key => RulePack.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "rule-packs", $"{key}.json"))))];

    private static string Printed => string.Join("\n", Packs.SelectMany(pack => Enum.GetValues<Category>().SelectMany(category =>
        pack.KindsFor(category).SelectMany(kind => Both((good, subject) => $"{kind.InWords()} · {subject}",
            (good, subject) => pack.Statement(kind, category, good, subject, new(2026, 11, 28), "Maker’s list, revision 4").Text))
        .Concat(!pack.DoesJobs(category) ? [] : new[] { false, true }
            .Where(preventive => !preventive || pack.Jobs!.PreventiveOn.Contains(category)).SelectMany(preventive =>
                Both((good, subject) => $"{(preventive ? "preventive maintenance" : "job")} · {subject}",
                    (good, subject) => pack.Statement(Job(preventive), category, good, subject, new(2026, 11, 28)).Text)))
        .Select(line => $"{pack.Key} · {category.InWords()} · {line}"))));

    private static IEnumerable<string> Both(Func<bool, string, string> what, Func<bool, string, string> statement) =>
        new[] { "aircraft", "engine", "propeller" }.SelectMany(subject => new[] { true, false }
            .Select(good => $"{what(good, subject)} · {(good ? "good" : "not good")}: {statement(good, subject)}"));

    private static Inspection Job(bool preventive) => new TypedJob("Tyre", "airframe", null, null).Begin(Guid.NewGuid(), Fixture.Aircraft(),
        "26-1", new(), preventive, Fixture.Ines, Fixture.Today, Fixture.Now).Job!;

    // The file was read line by line on 2026-11-28. A statement that is worded anew is read again, then put there.
    [Fact]
    public void Every_statement_reads_as_it_was_read() =>
        Printed.ShouldBe(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Data", "statements.txt")).TrimEnd()
            .ReplaceLineEndings("\n"));

    [Fact]
    public void No_statement_has_two_articles_an_unfilled_place_or_a_word_twice()
    {
        foreach (var line in Printed.Split('\n'))
        {
            Slips().IsMatch(line).ShouldBeFalse(line);
            line.ShouldEndWith(".");
        }
        foreach (var bad in new[] { "The a 100-hour", "of {subject} was", "12 h h", "an hundred", "the the", "a annual", "done.." })
            Slips().IsMatch(bad).ShouldBeTrue(bad);
    }

    // A shop's own pack of before says "The {type} of this aircraft".
    [Theory]
    [InlineData(InspectionKind.Service100, "The 100-hour service of this engine.")]
    [InlineData(InspectionKind.Annual, "The annual of this engine.")]
    public void An_article_of_the_shops_own_stays_the_only_one(InspectionKind kind, string says) =>
        new RulePack("own", "Own", default, "", [],
            [new([kind], [Category.Standard], "The {type} of this {subject}.", "", new(default, ""))])
            .Statement(kind, Category.Standard, true, "engine", default).Text.ShouldBe(says);

    // 14 CFR 91.327(b) and (c), 91.319(g), from memory: a light-sport goes by its maker's procedures, and no experimental is "airworthy".
    [Fact]
    public void A_light_sport_goes_by_its_makers_procedures_and_an_experimental_is_in_a_condition_for_safe_operation()
    {
        foreach (var line in Printed.Split('\n').Where(line => !line.Contains("service", StringComparison.Ordinal)
            && !line.Contains("job", StringComparison.Ordinal)))
        {
            var special = line.Contains("special light-sport", StringComparison.Ordinal);
            line.Contains("Maker’s list, revision 4", StringComparison.Ordinal).ShouldBe(special, line);
            line.Contains("airworthy condition", StringComparison.Ordinal)
                .ShouldBe(line.Contains("· standard ·", StringComparison.Ordinal)
                    && line.Contains("· good", StringComparison.Ordinal), line);
        }
    }

    [GeneratedRegex(@"\b(the|The|a|an|this) (the|a|an)\b|\ba (?=[aeio])|\ban (?=[^aeiou\d\s])|[{}\[\]]|\b(\w+) \3\b|"
        + @"\.\.|\(\s*\)| ,| \.|\.(json|jpg|png|csv)\b")]
    internal static partial Regex Slips();
}
