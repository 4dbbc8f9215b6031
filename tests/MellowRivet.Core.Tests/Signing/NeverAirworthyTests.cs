using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>
/// Whatever sequence of ordinary actions somebody makes up: an aircraft whose worst unanswered judgement is a rejection, or that has
/// an airworthiness item open, is never signed airworthy. The oracle keeps its own books, by domain.md section 14, and asks none of
/// what decides: it only sees what was read last on which part, and which lines are open.
/// </summary>
public class NeverAirworthyTests
{
    private static readonly Person Helper = new(Guid.NewGuid(), "Helper", "HH", [Role.Assistant], []);
    private static readonly ShopRules Shop = Fixture.Bare with
        { People = new Dictionary<Guid, Person> { [Fixture.Ines] = Fixture.Inspector, [Helper.Id] = Helper } };
    private static int signedAirworthy, signedUnairworthy, refused;

    private sealed class World
    {
        public readonly Aircraft Aircraft = Fixture.Aircraft();
        public readonly List<OpenItem> Items = [];
        public Inspection Inspection;
        private int minute, signed;

        // The oracle's books: the last pounds read on each cylinder that is fitted, and whether that number was set aside.
        private readonly Dictionary<Guid, (double Psi, bool Aside)> last = [];

        // And whether the filter was last seen with chunks in it, at this inspection, without anybody's word on that since.
        private bool chunks;

        public World() => Inspection = Begin();

        private DateTimeOffset Now => Fixture.Now.AddMinutes(++minute);
        private Component Engine => Aircraft.Engines.Single().Component;

        private Inspection Begin() =>
            new(Guid.NewGuid(), Aircraft, InspectionKind.Annual, $"26-{signed}", [Fixture.Small], Fixture.Today, null,
                new(FirstLook: false), null, Items.Where(item => item.IsOpen));

        private static Classing To(DiscrepancyClass @class, bool signs, DateTimeOffset at) =>
            new(@class, false, signs ? Fixture.Ines : Helper.Id, at, "a reason", "a reference", signs
                ? Fixture.Inspector.Certificates[0]
                : null);

        public void Do(int action, int with)
        {
            var number = 1 + with % 4;
            var @class = (DiscrepancyClass)(1 + with % 5);
            var (signs, found) = (with % 2 == 0, Inspection.Discrepancies.Count == 0
                ? null
                : Inspection.Discrepancies[with % Inspection.Discrepancies.Count]);
            var bad = JudgedLines.Of(Inspection, Aircraft).Where(line => line.IsUnanswered).ToList();
            var judged = bad.Count == 0 ? null : bad[with % bad.Count].Judged;
            switch (action)
            {
                case 0 or 1:
                    var psi = with % 3 == 0 ? 15 : 77;
                    var cylinder = Aircraft.Cylinder(Engine, number)!;
                    Inspection.Record(new(Guid.NewGuid(), Aircraft.Id, cylinder.Id, Reading.CompressionKind, $"{number}", psi, Unit.Psi,
                        new(true, 80, 14.7, null, Core.Compression.LeakPath.Rings, SecondTry: true), Aircraft.TimeInService, Now,
                        Fixture.Ines) { InspectionId = Inspection.Id });
                    last[cylinder.Id] = (psi, false);
                    break;
                case 2:
                    foreach (var place in Engine.Layout.Cylinders)
                    {
                        var part = Aircraft.Cylinder(Engine, place.Number)!;
                        if (last.ContainsKey(part.Id))
                            continue;
                        Fixture.Compress(Inspection, Aircraft, place.Number, 76, minute: ++minute);
                        last[part.Id] = (76, false);
                    }
                    break;
                case 3:
                    foreach (var task in Inspection.Tasks.Where(task => task.Verdict == TaskVerdict.NotYet))
                        Inspection.Answer(task, task.Measure is null && !task.IsCompression
                            ? TaskVerdict.Good
                            : TaskVerdict.NotApplicable, "not here", null, Fixture.Ines, Now);
                    break;
                case 4 when judged is not null:
                    var to = To(with % 3 == 0 ? @class : DiscrepancyClass.Airworthiness, signs, Now);
                    Word(judged.Key, Inspection.PutOnList(Guid.NewGuid(), with % 2 == 0
                        ? "oil leak at the filler"
                        : "low", judged.Where.ZoneKey, "", to, Inspection.Tasks.Single(task => task.IsCompression), judged,
                        Fixture.Classes).Refusal is null && to.Class != DiscrepancyClass.Airworthiness);
                    break;
                case 5:
                    Inspection.Find(Guid.NewGuid(), "cylinder low, leak at the filler", "engine", "", @class, false,
                        Inspection.Tasks.Single(task => task.IsCompression), Helper.Id, Now);
                    break;
                case 6 when found is not null:
                    Word(found.Origin?.Key, found.Class != @class && found.Classify(To(@class, signs, Now), Fixture.Classes, null) is null
                        && @class != DiscrepancyClass.Airworthiness);
                    break;
                case 7 when found is not null:
                    Word(found.Origin?.Key,
                        found.Correct(new("put right", with % 4 == 0 ? CorrectionKind.Deferred : CorrectionKind.Repaired, "manual"),
                            Inspection.Terms, Fixture.Ines, Now) is null);
                    break;
                case 8 when found is not null:
                    found.Move((Disposition)(1 + with % 9), "why", Inspection.Terms, Fixture.Ines, Now);
                    break;
                case 9 when judged is not null:
                    if (Inspection.SetJudgementAside(Aircraft, judged.Key, judged.Seen, "a reason", "a reference", Fixture.Inspector, signs
                        ? Fixture.Inspector.Certificates[0]
                        : null, Now) is not null)
                        break;
                    Word(judged.Key, true);
                    if (judged.ComponentId is { } set && last.TryGetValue(set, out var was))
                        last[set] = (was.Psi, true);
                    break;
                case 10:
                    var old = Aircraft.Cylinder(Engine, number)!;
                    Aircraft.TakeOff(old.Id, Fixture.Today, Aircraft.TimeInService, "off");
                    Aircraft.Install(new(Guid.NewGuid(), ComponentKind.Cylinder, "", $"n{minute}"), $"{number}", Aircraft.TimeInService,
                        default, Engine.Id, Fixture.Today);
                    last.Remove(old.Id);
                    break;
                case 11 when found is not null:
                    found.LookAgain("placarded", Fixture.Ines, Now);
                    break;
                case 12 when found is not null:
                    foreach (var question in DeferralWalk.Questions)
                        found.Answer(question.Key, question.GoesOn, "", Fixture.Classes, Fixture.Ines, Now);
                    break;
                case 13:
                    Inspection.LookAtZone(with % 2 == 0 ? "engine" : "gear", [], Fixture.Inspector, Fixture.Inspector.Certificates[0], Now);
                    break;
                case 14 when Inspection.Readings.LastOrDefault(reading => reading.Kind == Reading.CompressionKind) is { } reading
                    && reading.ComponentId is { } on && last.ContainsKey(on):
                    var value = with % 3 == 0 ? 15 : 77;
                    if (Inspection.Readings.Where(one => one.ComponentId == on).MaxBy(one => one.At) == reading)
                    {
                        reading.Correct(value, null, Helper.Id, Now);
                        last[on] = (value, false);
                    }
                    break;
                case 15:
                    chunks = with % 3 == 0;
                    Inspection.Cut(new(Guid.NewGuid(), Engine.Id, FilterPlace.Filter, chunks
                        ? FilterMetal.Ferrous
                        : FilterMetal.None, chunks ? FilterAmount.Chunks : FilterAmount.None, "", null, Fixture.Ines, Now)).ShouldBeNull();
                    break;
                default:
                    TrySign();
                    break;
            }
            Inspection.Remember(Aircraft);
        }

        private void Word(string? key, bool said) => chunks &= !(said && key?.StartsWith("filter/", StringComparison.Ordinal) == true);

        private void TrySign()
        {
            if (!Readiness.Of(Inspection, Aircraft, Shop).MaySign)
            {
                refused++;
                return;
            }
            var (rejected, open) = (last.Where(one => one.Value is { Psi: < 60, Aside: false }).Select(one => one.Key)
                .ToHashSet(), Inspection.Discrepancies.Where(one => !one.Disposition.IsSettled()
                    && one.Class == DiscrepancyClass.Airworthiness).ToList());
            Items.AddRange(OpenItemsAfter.Signing(Inspection, Items.Where(item => item.IsOpen).ToList(), Fixture.Ines, Fixture.Today));
            Inspection.Sign();
            if (Inspection.State == InspectionState.SignedAirworthy)
            {
                signedAirworthy++;
                open.ShouldBeEmpty();
                chunks.ShouldBeFalse("chunks in the filter, and nobody's word on them");
                rejected.ShouldBeEmpty("a cylinder at 15/80, by a published rule, that nobody set aside");
                Items.ShouldNotContain(item => item.IsOpen && item.Because == OpenBecause.Airworthiness);
            }
            else
                signedUnairworthy++;
            // The next annual begins with new readings.
            signed++;
            last.Clear();
            chunks = false;
            Inspection = Begin();
        }
    }

    [Fact]
    public void No_sequence_of_ordinary_actions_signs_what_was_rejected()
    {
        var step = from action in Gen.Choose(0, 18) from with in Gen.Choose(0, 719) select (action, with);
        Prop.ForAll(step.ListOf(60).ToArbitrary(), steps =>
        {
            var world = new World();
            foreach (var (action, with) in steps)
                world.Do(action, with);
            return true;
        }).Check(Config.QuickThrowOnFailure.WithMaxTest(120));
        // The property is about something: it got as far as signing, both ways, and was turned away as well.
        (signedAirworthy > 0, signedUnairworthy > 0, refused > 0).ShouldBe((true, true, true),
            $"{signedAirworthy}, {signedUnairworthy}, {refused}");
    }
}
