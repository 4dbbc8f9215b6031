using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Worksheets;

public class WorksheetEditTests
{
    private static readonly Worksheet Small = Fixture.Small;

    private static string Order(Worksheet sheet) =>
        string.Join(" ", sheet.Zones.Select(zone => $"{zone.Key}:{string.Join(",", zone.Tasks.Select(task => task.Key))}"));

    [Fact]
    public void A_task_moves_a_place_at_a_time_and_over_the_edge_of_its_zone()
    {
        Order(Small).ShouldBe("engine:comp,oil gear:tyres,nose,tail");
        Order(Small.Move("tyres", down: true)).ShouldBe("engine:comp,oil gear:nose,tyres,tail");
        Order(Small.Move("oil", down: true)).ShouldBe("engine:comp gear:oil,tyres,nose,tail");
        Order(Small.Move("tyres", down: false)).ShouldBe("engine:comp,oil,tyres gear:nose,tail");
        Order(Small.Move("comp", down: false)).ShouldBe(Order(Small), "at the very beginning it stays");
        Order(Small.Move("oil", down: true).Move("comp", down: true))
            .ShouldBe("engine:comp gear:oil,tyres,nose,tail", "a zone is never left empty");
        Order(Small.MoveZone("gear", down: false)).ShouldBe("gear:tyres,nose,tail engine:comp,oil");
    }

    [Fact]
    public void A_task_is_put_in_place_of_its_own_or_at_the_end()
    {
        var tyres = Small.Tasks.Single(task => task.Key == "tyres");
        Small.Put("gear", tyres with { Text = "Tyres and tubes" }).Worksheet!.Zones[1].Tasks[0].Text.ShouldBe("Tyres and tubes");
        Order(Small.Put("engine", tyres).Worksheet!).ShouldBe("engine:comp,oil,tyres gear:nose,tail");
        Order(Small.Put("gear", tyres with { Key = "new" }).Worksheet!).ShouldBe("engine:comp,oil gear:tyres,nose,tail,new");
        Small.Put("nowhere", tyres).Refusal!.Field.ShouldBe("zone");
        Small.Put("gear", tyres with { Text = " " }).Refusal!.Message.ShouldContain("needs words");
        Small.Put("gear", tyres with { Kind = TaskKind.Lubricate }).Refusal!.Message.ShouldContain("say with what");
    }

    [Fact]
    public void The_last_task_of_a_zone_goes_with_its_zone()
    {
        var one = Small.TakeOut("comp").Worksheet!;
        Order(one).ShouldBe("engine:oil gear:tyres,nose,tail");
        one.TakeOut("oil").Refusal!.Message.ShouldContain("take the zone out");
        one.Put("gear", one.Tasks.First()).Refusal!.Message.ShouldContain("only task");
        Order(one.TakeOutZone("engine").Worksheet!).ShouldBe("gear:tyres,nose,tail");
        one.TakeOutZone("engine").Worksheet!.TakeOutZone("gear").Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void What_changed_between_two_editions_is_said_task_by_task()
    {
        var oil = Small.Tasks.Single(task => task.Key == "oil");
        var later = Small.Put("engine",
            oil with { Measure = oil.Measure! with { Low = 60 }, At = [TaskInterval.Parse("50 h")!.Value] }).Worksheet!
            .TakeOut("tail").Worksheet!.Put("gear", new("brakes", "Brakes", "(e)(9)")).Worksheet!.Move("nose", down: true);
        WorksheetChanges.Between(Small, later).Select(change => $"{change.Zone}: {change.What}: {change.Change}").ShouldBe(
        [
            "Engine: Oil pressure: measure: 55–95 psi → 60–95 psi; at: none → 50 h",
            "Gear: Brakes: new",
            "Gear: Tail wheel: taken out",
        ]);
        WorksheetChanges.Between(Small, Small.Move("tyres", true)).ShouldHaveSingleItem().Change.ShouldBe("another order");
        WorksheetChanges.Between(Small, Small.Move("oil", true)).ShouldHaveSingleItem().Change.ShouldBe("moved here from Engine");
        WorksheetChanges.Between(Small, Small).ShouldBeEmpty();
    }

    [Fact]
    public void A_published_edition_never_changes()
    {
        var (by, at) = (Guid.NewGuid(), Fixture.Now);
        var draft = new Edition(Guid.NewGuid(), Small, true, by, at, "");
        draft.Write(Small.Move("tyres", true) with { Key = "other", Version = 99 }, by, at).ShouldBeNull();
        (draft.Worksheet.Key, draft.Worksheet.Version).ShouldBe(("small", 3), "a draft keeps its name and number");
        draft.Publish(" ", by, at)!.Field.ShouldBe("note");
        draft.Publish("Tyres later", by, at).ShouldBeNull();
        draft.Write(Small, by, at)!.Message.ShouldContain("published");
        draft.Publish("again", by, at).ShouldNotBeNull();
    }

    [Theory]
    [InlineData("zone,key\ngear,a", "“text”")]
    [InlineData("zone,key,text,reference,at\ngear,a,A,r,sometimes", "Line 2, at: “sometimes”")]
    [InlineData("zone,key,text,reference,kind\ngear,a,A,r,polish", "Line 2, kind: “polish” isn't one of inspect, service")]
    [InlineData("zone,key,text,reference,kind\ngear,a,A,r,1", "Line 2, kind")]
    [InlineData("zone,key,text,reference,measure,unit,low\ngear,a,A,r,k,psi,wide", "Line 2, low: “wide” isn't a number")]
    [InlineData("zone,key,text,reference,measure,unit,standing,source\ngear,a,A,r,k,furlong,manual,m", "furlong")]
    [InlineData("zone,key,text,reference,secondPerson\ngear,a,A,r,perhaps", "yes or no")]
    [InlineData("zone,key,text,reference\ngear,a,A,r\ngear,a,B,r", "twice: a")]
    [InlineData("zone,key,text,reference\ngear,A!,A,r", "no key")]
    [InlineData("zone,key,text,reference\n", "needs zones")]
    [InlineData("", "empty")]
    public void A_table_is_read_whole_or_not_at_all(string csv, string says) =>
        Should.Throw<FormatException>(() => WorksheetCsv.Read(csv, Small)).Message.ShouldContain(says);

    [Fact]
    public void A_table_may_come_with_semicolons_and_a_guard_against_formulas()
    {
        var sheet = WorksheetCsv.Read("zone;zoneTitle;key;text;reference;at\ngear;Gear;a;'=Tyres;r;25 h; \n", Small);
        sheet.Tasks.Single().Text.ShouldBe("=Tyres");
        System.Text.Encoding.UTF8.GetString(WorksheetCsv.Write(sheet)).ShouldContain("'=Tyres");
    }

    [Theory]
    [InlineData("Light-sport: 100 h", "light-sport-100-h")]
    [InlineData("  Öl & Filter ", "l-filter")]
    public void A_title_gives_its_key(string title, string key) => Worksheet.KeyFor(title).ShouldBe(key);
}
