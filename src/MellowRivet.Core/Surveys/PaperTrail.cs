using MellowRivet.Core.Books;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Surveys;

/// <summary>What the papers tell: an entry, a form, a record.</summary>
/// <param name="Key">Its key: "entry-…", "form-…".</param>
/// <param name="On">Its day; null where it has none.</param>
/// <param name="Hours">The hours it gives, in words; empty for none.</param>
/// <param name="Words">What it says.</param>
public sealed record PaperLine(string Key, DateOnly? On, string Hours, string Words);

/// <summary>An aircraft's papers as a survey reads them.</summary>
/// <param name="Aircraft">The aircraft.</param>
/// <param name="Books">Its books.</param>
/// <param name="Gaps">Holes in them, and totals that don't add up.</param>
/// <param name="Damage">What they tell of damage and repairs, latest first.</param>
/// <param name="Yearly">The last yearly inspections, latest first.</param>
/// <param name="Bulletins">What the shop's bulletins ask of it, or can't be told.</param>
/// <param name="Limited">Parts with a life limit.</param>
public sealed record PaperTrail(Aircraft Aircraft, IReadOnlyList<LogBook> Books, IReadOnlyList<BookGap> Gaps,
    IReadOnlyList<PaperLine> Damage, IReadOnlyList<PaperLine> Yearly, IReadOnlyList<BulletinLine> Bulletins,
    IReadOnlyList<DueEntry> Limited)
{
    // Three years would do; five show who does it as a habit.
    private const int LastYearly = 5;

    /// <param name="aircraft">The aircraft.</param>
    /// <param name="books">Its books.</param>
    /// <param name="entries">Their entries.</param>
    /// <param name="gaps">What doesn't hold together in them.</param>
    /// <param name="signed">Inspections that were signed in this shop, with who signed.</param>
    /// <param name="due">What is due on it, with its bulletins.</param>
    /// <param name="rules">The words that tell of damage and of yearly inspections.</param>
    public static PaperTrail Of(Aircraft aircraft, IReadOnlyList<LogBook> books, IReadOnlyCollection<BookEntry> entries,
        IReadOnlyList<BookGap> gaps, IEnumerable<PaperLine> signed, DueLine due, SurveyRules rules) => new(aircraft, books, gaps,
        [
            .. entries.Where(entry => Speaks(entry.Text, rules.DamageWords)).OrderByDescending(entry => entry.On).Select(Line),
            .. aircraft.MajorWork.OrderByDescending(work => work.On)
                .Select(work => new PaperLine($"form-{work.Id:N}", work.On, "", $"{work.What} ({work.Form})")),
        ],
        [.. entries.Where(entry => Speaks(entry.Text, rules.InspectionWords)).Select(Line).Concat(signed)
            .OrderByDescending(line => line.On).Take(LastYearly)],
        [.. due.Research.Lines.Where(line => line.State is not (BulletinState.DoesNotApply or BulletinState.Superseded
            or BulletinState.Done or BulletinState.Declined)).OrderByDescending(States.Of)],
        [.. due.Entries.Where(entry => entry.Item.Kind is DueKind.LifeLimit or DueKind.Overhaul or DueKind.Replacement)]);

    /// <summary>
    /// Whether words speak of something: one of the words stands in them as a word or at the beginning of one, "repair" in "repaired".
    /// </summary>
    public static bool Speaks(string text, IReadOnlyList<string> words) => words.Any(word =>
    {
        for (var at = text.IndexOf(word, StringComparison.OrdinalIgnoreCase); at >= 0;
            at = text.IndexOf(word, at + 1, StringComparison.OrdinalIgnoreCase))
            if (at == 0 || !char.IsLetter(text[at - 1]))
                return true;
        return false;
    });

    private static PaperLine Line(BookEntry entry) =>
        new($"entry-{entry.Id:N}", entry.On, entry.Hours is { } hours ? $"{hours} h" : "", entry.Text);
}
