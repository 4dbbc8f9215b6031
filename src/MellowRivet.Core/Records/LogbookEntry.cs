using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Records;

/// <summary>What the entries of an inspection are written from.</summary>
/// <param name="Inspection">The inspection.</param>
/// <param name="Aircraft">Its aircraft, with every part that is or was on it.</param>
/// <param name="Shop">Rules, template and people.</param>
/// <param name="Due">What is due on the aircraft, as it stands before the signature.</param>
/// <param name="On">The day as the shop has it.</param>
/// <param name="Clock">The shop's clock, for the days on which things were done.</param>
public sealed record Closing(Inspection Inspection, Aircraft Aircraft, ShopRules Shop, DueLine Due, DateOnly On, TimeProvider Clock)
{
    /// <summary>What is due once it is signed.</summary>
    public NextDue Next { get; } = NextDue.After(Due, Inspection, On);

    internal string Named(Guid? person) => Shop.Named(person, Aircraft.SerialNumber);

    /// <summary>A decision as it is entered, with who answers for it: that isn't always who signs.</summary>
    internal string Decided(string words, Guid by, string certificate) =>
        $"{words}{(words[^1] is '.' or '!' or '?' ? "" : ".")} By {(certificate.Length > 0 ? Shop.Deciding(by, certificate) : Named(by))}";

    internal string DayOf(DateTimeOffset? at) => at is { } known ? $"{Clock.DayOf(known):yyyy-MM-dd}" : "";
}

/// <summary>One sentence of an entry.</summary>
/// <param name="Fact">What it tells.</param>
/// <param name="Text">The sentence.</param>
/// <param name="InFull">The same in full: what was left out was this very sentence, and not another value of the same kind.</param>
/// <param name="Omitted">Why it doesn't stand in the entry; null where it does.</param>
public sealed record EntrySentence(EntryFact Fact, string Text, string InFull, OmittedFact? Omitted)
{
    /// <summary>The rule that wants it in the entry; null where it may be left out with a reason.</summary>
    public RuleSource? Wanted => Facts.All[Fact.Kind].Wanted;
}

/// <summary>One logbook entry as it will stand, sentence by sentence.</summary>
/// <param name="Book">The book.</param>
/// <param name="On">The engine or propeller whose book it is; null for the airframe's.</param>
/// <param name="Time">Its total time in service; null where nobody knows.</param>
/// <param name="SinceOverhaul">Its time since overhaul; null where there was none or nobody knows.</param>
/// <param name="Extent">Kind and extent of the inspection.</param>
/// <param name="Sentences">What was done, in the order of the template; those that were left out too.</param>
/// <param name="Statement">The statement.</param>
/// <param name="Source">Where its words come from.</param>
public sealed record LogbookEntry(Book Book, Installation? On, Hours? Time, Hours? SinceOverhaul, string Extent,
    IReadOnlyList<EntrySentence> Sentences, string Statement, RuleSource Source)
{
    /// <summary>What it is about: "Engine left".</summary>
    public string Item => On is null ? $"{Book}" : $"{Book} {On.Position}".Trim();

    /// <summary>What stands in it.</summary>
    public IEnumerable<string> Told => Sentences.Where(sentence => sentence.Omitted is null).Select(sentence => sentence.Text);

    /// <summary>The entries that close an inspection: the airframe's, and one for each engine and propeller.</summary>
    public static IReadOnlyList<LogbookEntry> Of(Closing closing)
    {
        var (inspection, aircraft, rules) = (closing.Inspection, closing.Aircraft, closing.Shop.Pack);
        var (template, length) = (closing.Shop.Entries, inspection.EntryLength);
        var airworthy = !inspection.OpenAirworthiness.Any();
        var facts = EntryFacts.Of(closing).ToLookup(fact => (fact.Place.Book, fact.Place.Carrier));
        var total = aircraft.TimeInService;
        List<LogbookEntry> all =
        [
            Entry(Book.Airframe, "aircraft", null, total, null),
            .. aircraft.Engines.Select(engine => Entry(Book.Engine, "engine", engine, engine.TimeInService(total),
                engine.SinceOverhaul(total))),
            .. aircraft.Propellers.Select(propeller => Entry(Book.Propeller, "propeller", propeller, propeller.TimeInService(total),
                propeller.SinceOverhaul(total))),
        ];
        // A job is entered where its work was; one that came to nothing yet, in the airframe's.
        return inspection.JobOf is not null && all.Any(entry => entry.Sentences.Count > 0)
            ? [.. all.Where(entry => entry.Sentences.Count > 0)] : inspection.JobOf is not null ? [all[0]] : all;

        LogbookEntry Entry(Book book, string subject, Installation? on, Hours? time, Hours? sinceOverhaul)
        {
            var (statement, source) = rules.Statement(inspection, aircraft.Category, airworthy, subject, closing.On);
            var sentences = facts[(book, on?.ComponentId)].OrderBy(fact => template.PlaceOf(fact.Kind)).Select(Sentence)
                .Where(sentence => sentence.Text.Length > sentence.Fact.Place.Said.Length);
            return new(book, on, time, sinceOverhaul, template.Tell(EntryFacts.ExtentOf(closing, subject), length), [.. sentences],
                statement, source);
        }

        EntrySentence Sentence(EntryFact fact)
        {
            var full = fact.Place.Said + template.Tell(fact, EntryLength.Full);
            return new(fact, fact.Place.Said + template.Tell(fact, length), full, Facts.All[fact.Kind].Wanted is not null ? null
                : inspection.Omitted.FirstOrDefault(left => (left.Key, left.Text) == (fact.Key, full)));
        }
    }
}
