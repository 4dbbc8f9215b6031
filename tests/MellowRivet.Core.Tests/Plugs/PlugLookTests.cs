using MellowRivet.Core.Judgements;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Tests.Plugs;

public class PlugLookTests
{
    // domain.md section 5, common practice: dry and tan is good; soot, lead, white and oil are watched; a crack is scrap.
    [Theory]
    [InlineData(PlugLook.Normal, Verdict.Good, false)]
    [InlineData(PlugLook.Sooty, Verdict.Watch, true)]
    [InlineData(PlugLook.OilWet, Verdict.Watch, true)]
    [InlineData(PlugLook.LeadFouled, Verdict.Watch, true)]
    [InlineData(PlugLook.Bridged, Verdict.Watch, true)]
    [InlineData(PlugLook.White, Verdict.Watch, false)]
    [InlineData(PlugLook.WornOval, Verdict.Watch, false)]
    [InlineData(PlugLook.Cracked, Verdict.Reject, false)]
    public void A_look_judges_the_plug_and_says_whether_its_hole_fouls(PlugLook look, Verdict verdict, bool fouled) =>
        (look.Judge().Verdict, look.IsFouled()).ShouldBe((verdict, fouled));

    [Fact]
    public void What_points_at_the_cylinder_says_so()
    {
        PlugLook.OilWet.Judge().Next.ShouldContain("rings");
        PlugLook.White.Judge().Next.ShouldContain("intake leak");
        Enum.GetValues<PlugLook>().Select(look => look.InWords()).Distinct().Count().ShouldBe(8);
    }
}
