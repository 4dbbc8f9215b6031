using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Tests.People;

/// <summary>14 CFR 43 Appendix A(c), 43.3, 43.7 and 65.85 to 65.95, from memory.</summary>
public class WhoMayTests
{
    private static readonly WhoMay List = WhoMay.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "who-may", "us.json")));

    [Fact]
    public void The_list_has_all_thirty_two_paragraphs_once() =>
        List.Items.Select(item => item.Paragraph).ShouldBe(Enumerable.Range(1, 32));

    [Theory]
    [InlineData("replace the nose tyre", 1)]
    [InlineData("clean and grease wheel bearings", 4)]
    [InlineData("replace a cotter pin", 5)]
    [InlineData("top up hydraulic fluid", 8)]
    [InlineData("replace the seat belts", 14)]
    [InlineData("change bulb in position light", 17)]
    [InlineData("clean and gap the spark plugs", 20)]
    [InlineData("oil filter change", 23)]
    [InlineData("charge the battery", 24)]
    [InlineData("look at the magnetic plug", 29)]
    [InlineData("update the navigator's database", 32)]
    public void The_owner_may_do_what_is_on_the_list(string job, int paragraph)
    {
        var answer = List.Ask(job, Category.Standard);
        answer.Who.ShouldBe(MayDo.Owner, answer.Words);
        answer.Listed.ShouldContain(item => item.Paragraph == paragraph);
    }

    [Theory]
    [InlineData("rearrange the instrument panel", MayDo.Mechanic)]
    [InlineData("replace a hydraulic hose", MayDo.Mechanic)]
    [InlineData("new brake pads", MayDo.Mechanic)]
    [InlineData("time the magnetos", MayDo.Mechanic)]
    [InlineData("replace aileron cable", MayDo.Mechanic)]
    [InlineData("transponder test", MayDo.RepairStation)]
    [InlineData("annual inspection", MayDo.Inspector)]
    [InlineData("splice a wing spar", MayDo.Inspector)]
    [InlineData("repaint the ailerons", MayDo.Supervised)]
    [InlineData("fit a tow bar bracket to the firewall", MayDo.Supervised)]
    [InlineData("", MayDo.Supervised)]
    public void What_is_not_on_the_list_takes_someone_else(string job, MayDo who)
    {
        var answer = List.Ask(job, Category.Standard);
        answer.Who.ShouldBe(who, answer.Words);
        answer.Listed.Where(_ => who == MayDo.Supervised).ShouldBeEmpty();
    }

    [Fact]
    public void The_category_is_said_before_the_general_rule()
    {
        List.Ask("replace a tyre", Category.ExperimentalAmateurBuilt).Before!.ShouldContain("43.1(b)");
        List.Ask("replace a tyre", Category.Permit).Before!.ShouldContain("two people");
        List.Ask("replace a tyre", Category.Standard).Before.ShouldBeNull();
    }

    public static TheoryData<string, string, string> Said()
    {
        var rows = new TheoryData<string, string, string>();
        foreach (var row in File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Data", "who-may.tsv"))
            .Where(line => !line.StartsWith('#')).Select(line => line.Split('\t')))
            rows.Add(row[0], row[1], row[2]);
        return rows;
    }

    [Theory]
    [MemberData(nameof(Said))]
    public void What_people_say_finds_its_paragraph_first(string job, string who, string paragraph)
    {
        var answer = List.Ask(job, null);
        answer.Who.ToString().ShouldBe(who, StringCompareShould.IgnoreCase);
        if (paragraph != "-")
            answer.Listed[0].Paragraph.ShouldBe(int.Parse(paragraph));
    }

    [Theory]
    [InlineData("spark")]
    [InlineData("airbox")]
    [InlineData("ribbon")]
    public void A_word_is_not_found_by_the_beginning_of_another(string word) =>
        List.Ask($"replace the {word}", null).Beyond.ShouldBeEmpty();
}
