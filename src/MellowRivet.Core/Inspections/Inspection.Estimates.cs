using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Inspections;

// What it costs: the prices of its work, what was begun unasked, and what the owner chooses between.
public sealed partial class Inspection
{
    /// <summary>The inspection itself, as work that has a price.</summary>
    public const string ItselfKey = "inspection";

    private List<PricedWork> pricedWork = [];
    private List<Choice> choices = [];

    /// <summary>Work that is no discrepancy and has a price.</summary>
    public IReadOnlyList<PricedWork> PricedWork => pricedWork;

    /// <summary>What is to be decided between ways side by side.</summary>
    public IReadOnlyList<Choice> Choices => choices;

    /// <summary>What of the pre-authorised amount is spoken for by lines that were begun unasked, each at the most it may cost.</summary>
    public decimal DrawnDown => Discrepancies.Sum(found => found.DrawsDown());

    /// <summary>On what terms work begins now.</summary>
    public Terms Terms => new(House, House.PreAuthorised - (House.AskFirst ? DrawnDown : 0), IsSurvey);

    /// <summary>Lines that fall away with what was chosen, each with the title of that choice.</summary>
    public IReadOnlyDictionary<int, string> FallenAway => choices.Where(choice => choice.Chosen is not null)
        .SelectMany(choice => choice.Chose!.FallsAway.Select(number => (number, choice)))
        .GroupBy(one => one.number).ToDictionary(one => one.Key, one => $"{one.First().choice.Title}: {one.First().choice.Chose!.Name}");

    /// <summary>Work that could have a price and has none so far, with the hours that its file says.</summary>
    /// <param name="due">Due items that are done with it.</param>
    public IEnumerable<PricedWork> Unpriced(IEnumerable<DueWork> due) =>
        new[]
            {
                new PricedWork(ItselfKey, $"The {Kind.InFull()} itself", WorkKind.Inspection,
                    Hours(WorksheetHours - worksheets.Where(sheet => bulletins.Index().Any(work => BulletinSheet(work.Index) == sheet.Key))
                        .Sum(sheet => sheet.Hours))),
            }
            .Where(_ => JobOf is null && !IsSurvey)
            .Concat(bulletins.Select((work, index) => new PricedWork($"bulletin-{work.ZoneKey}", work.Title, WorkKind.Bulletin,
                Hours(worksheets.FirstOrDefault(sheet => sheet.Key == BulletinSheet(index))?.Hours ?? 0))))
            .Concat(due.Select(item => new PricedWork($"due-{item.Id:N}", item.Title, WorkKind.Due, Hours(item.Hours ?? 0))))
            .Where(work => pricedWork.All(other => other.Key != work.Key));

    private static Estimate? Hours(decimal hours) => hours > 0 ? Estimate.Of(hours, null) : null;

    /// <summary>Says what a line of the list, or other work, is expected to take.</summary>
    /// <param name="key">A discrepancy's number, or the work's key.</param>
    /// <param name="estimate">Makes the estimate from what stood there.</param>
    /// <param name="offered">Work that has no price so far.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public Refusal? Expect(string? key, Func<Estimate?, (Estimate? Estimate, Refusal? Refusal)> estimate, IEnumerable<PricedWork> offered,
        Guid by, DateTimeOffset at)
    {
        if (Line(key) is { } found)
        {
            var (now, wrong) = estimate(found.Estimate);
            return wrong ?? found.Expect(now, Terms, by, at);
        }
        if ((pricedWork.Find(work => work.Key == key) ?? offered.FirstOrDefault(work => work.Key == key)) is not { } priced)
            return new("estimate", "There is no such line.");
        var (then, refusal) = estimate(priced.Estimate);
        if ((refusal ?? then?.Check()) is { } not)
            return not;
        Keep(priced.Expect(then));
        return null;
    }

    /// <summary>The line of the list by its number as it stands in an address; null for none.</summary>
    public Discrepancy? Line(string? key) =>
        int.TryParse(key, out var number) ? Discrepancies.FirstOrDefault(found => found.Number == number) : null;

    /// <summary>What the owner is asked, or said, about work that is no discrepancy.</summary>
    /// <param name="key">The work.</param>
    /// <param name="to">Asked, approved or declined.</param>
    /// <param name="by">Who noted it; null for the owner.</param>
    /// <param name="at">When.</param>
    public Refusal? Decide(string? key, Disposition to, Guid? by, DateTimeOffset at)
    {
        if (pricedWork.Find(work => work.Key == key) is not { } priced)
            return new("work", "There is no such line, or it has no price yet.");
        if (to is not (Disposition.Asked or Disposition.Approved or Disposition.Declined))
            return new("work", "Ask the owner, or say what they answered.");
        if (by is null && priced.Disposition == Disposition.Open)
            return new("work", "The shop hasn't asked about it.");
        Keep(priced.Take(to, House, by, at));
        // A due item that the owner declines is not done now: it stays on the due line.
        if (priced.Kind == WorkKind.Due && Guid.TryParse(priced.Key["due-".Length..], out var item)
            && to is Disposition.Approved or Disposition.Declined)
            Plan(item, to == Disposition.Approved);
        return null;
    }

    private void Keep(PricedWork work) => pricedWork = pricedWork.Exists(other => other.Key == work.Key)
        ? [.. pricedWork.Select(other => other.Key == work.Key ? work : other)]
        : [.. pricedWork, work];

    /// <summary>Puts ways side by side, or changes them while nobody has chosen.</summary>
    public Refusal? Offer(Choice choice)
    {
        if (choice.Check() is { } refusal)
            return refusal;
        if (choice.Number is { } number)
        {
            if (Discrepancies.FirstOrDefault(found => found.Number == number) is not { IsOpen: true })
                return new("number", $"{number:00} is no open line of this list.");
            if (choices.Any(other => other.Number == number && other.Id != choice.Id))
                return new("number", $"There are ways side by side for {number:00} already.");
        }
        var stands = choices.Find(other => other.Id == choice.Id);
        if (stands is { Chosen: not null })
            return new("alternatives", $"{stands.Chose!.Name} was chosen: take that back before you change it.");
        choices = stands is null ? [.. choices, choice]
            : [.. choices.Select(other => other == stands ? choice with { Asked = stands.Asked } : other)];
        return null;
    }

    /// <summary>Asks the owner to choose, or takes back what was chosen, to ask anew.</summary>
    public Refusal? AskChoice(Guid id, Guid by, DateTimeOffset at)
    {
        if (choices.Find(other => other.Id == id) is not { } choice)
            return new("alternatives", "There is no such choice.");
        if (choice.Number is { } number && !IsSurvey && Discrepancies.Single(found => found.Number == number) is { } found)
        {
            if (!found.IsOpen)
                return new("alternatives", $"{number:00} is {found.Disposition.InWords()}: that can't be chosen anew.");
            if (found.Disposition != Disposition.Asked
                && found.Move(Disposition.Asked, choice.Chosen is null ? null : "to be chosen anew", Terms, by, at) is { } refusal)
                return refusal with { Field = "alternatives" };
        }
        Keep(choice with { Asked = true, Chosen = null, Agreed = null });
        return null;
    }

    /// <summary>Takes ways that nobody chose between off again.</summary>
    public Refusal? Drop(Guid id)
    {
        if (choices.Find(other => other.Id == id) is { Chosen: not null } chosen)
            return new("alternatives", $"{chosen.Chose!.Name} was chosen: it stays.");
        choices = [.. choices.Where(other => other.Id != id)];
        return null;
    }

    /// <summary>
    /// Takes one of the ways. Its estimate becomes that of its line, at a price that is agreed with it; to leave it is to decline it.
    /// </summary>
    /// <param name="id">What was to be decided.</param>
    /// <param name="index">Which way, from 0.</param>
    /// <param name="seen">What whoever chose has read, see <see cref="Choice.AsItStands"/>.</param>
    /// <param name="by">Who noted it; null for the owner, on the owner's page.</param>
    /// <param name="at">When.</param>
    public Refusal? Choose(Guid id, int index, string? seen, Guid? by, DateTimeOffset at)
    {
        if (choices.Find(other => other.Id == id) is not { } choice || index < 0 || index >= choice.Alternatives.Count
            || (by is null && choice.Disposition == Disposition.Open))
            return new("alternatives", "There is no such choice.");
        if (choice.Chosen is not null)
            return choice.Chosen.Index == index ? null
                : new("alternatives", $"{choice.Chose!.Name} was chosen already: speak to the shop.");
        if (seen != choice.AsItStands(House))
            return new("alternatives", "It has changed since you opened it: nothing was chosen. Read it again.");
        var taken = choice.Alternatives[index];
        if (choice.Number is { } number)
        {
            var found = Discrepancies.Single(other => other.Number == number);
            if (!found.IsOpen || (by is null && found.Disposition is Disposition.InWork or Disposition.PartsAwaited))
                return new("alternatives", $"{number:00} is {found.Disposition.InWords()} already.");
            // A survey asks no owner: the buyer's choice says what it costs.
            if (!IsSurvey && found.Disposition != Disposition.Asked
                && found.Move(Disposition.Asked, null, Terms, by, at) is { } unasked)
                return unasked with { Field = "alternatives" };
            var (leaves, words) = (taken.Kind == AlternativeKind.Leave, $"chosen: {taken.Name}");
            if ((leaves ? null : found.Expect(taken.Estimate, Terms, by ?? Guid.Empty, at)) is { } wrong)
                return wrong with { Field = "alternatives" };
            if (!IsSurvey && found.Move(leaves ? Disposition.Declined : Disposition.Approved, words, Terms, by, at) is { } refusal)
                return refusal with { Field = "alternatives" };
        }
        Keep(choice with
        {
            Asked = true, Chosen = new(index, by, at),
            Agreed = AgreedPrice.Of(taken.Estimate, House, by is null ? AgreedHow.Owner : AgreedHow.OwnersWord, by, at),
        });
        return null;
    }

    private void Keep(Choice choice) => choices = [.. choices.Select(other => other.Id == choice.Id ? choice : other)];
}
