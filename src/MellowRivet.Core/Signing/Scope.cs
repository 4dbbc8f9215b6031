using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Signing;

/// <summary>A paragraph of what an inspection covers.</summary>
/// <param name="Key">As worksheets name it: "43D(d)(3)".</param>
/// <param name="Title">What it asks for, in our own words.</param>
/// <param name="On">The build it is for.</param>
public sealed record ScopeParagraph(string Key, string Title, AppliesTo On = AppliesTo.Every);

/// <summary>What some kinds of inspection cover on some categories of aircraft.</summary>
/// <param name="Inspections">The kinds.</param>
/// <param name="Categories">The categories.</param>
/// <param name="Title">The list: "14 CFR 43 Appendix D".</param>
/// <param name="Paragraphs">Its paragraphs; empty where the maker's or the scheme's own list decides.</param>
/// <param name="ByMaker">It goes by the maker's or the scheme's procedures: the signer states them by title and revision.</param>
/// <param name="Source">The rule.</param>
public sealed record ScopeRule(IReadOnlyList<InspectionKind> Inspections, IReadOnlyList<Category> Categories, string Title,
    IReadOnlyList<ScopeParagraph> Paragraphs, bool ByMaker, RuleSource Source);

/// <summary>A checklist by its title and revision, as the signer states it and the entry names it.</summary>
public sealed record Checklist(string Title, string Revision, Guid By, DateTimeOffset At)
{
    public string InWords => $"{Title}, {Revision}";
}

/// <summary>What of an inspection's scope the chosen worksheets leave uncovered.</summary>
/// <param name="Rule">The scope; null where the rule pack asks for none.</param>
/// <param name="Holes">Paragraphs that no task covers.</param>
public sealed record Scope(ScopeRule? Rule, IReadOnlyList<ScopeParagraph> Holes)
{
    /// <summary>The signer has to state the checklist: for the holes, or because the maker's procedures decide.</summary>
    public bool WantsChecklist => Rule is { ByMaker: true } || Holes.Count > 0;

    /// <param name="pack">The rule pack.</param>
    /// <param name="kind">The kind of inspection.</param>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="covered">What the tasks cover; a paragraph covers what it is part of.</param>
    public static Scope Of(RulePack pack, InspectionKind kind, Aircraft aircraft, IEnumerable<string> covered)
    {
        if (pack.Scopes?.FirstOrDefault(rule => rule.Inspections.Contains(kind) && rule.Categories.Contains(aircraft.Category))
            is not { } rule)
            return new(null, []);
        var keys = covered.ToHashSet();
        return new(rule,
            [.. rule.Paragraphs.Where(paragraph => Worksheet.Applies(paragraph.On, aircraft)
                && !keys.Any(key => key == paragraph.Key || key.StartsWith(paragraph.Key + "(", StringComparison.Ordinal)))]);
    }

    public static Scope Of(RulePack pack, Inspection inspection, Aircraft aircraft) =>
        Of(pack, inspection.Kind, aircraft, inspection.Tasks.SelectMany(task => task.Covers));

    /// <summary>In words, for the entry: by which list it was done.</summary>
    public string Entered(Checklist? checklist) => (Rule, checklist) switch
    {
        (null, null) => "",
        (null, { } list) => $"checklist {list.InWords}",
        ({ ByMaker: true }, { } list) => $"{Rule.Title}: {list.InWords}",
        ({ }, { } list) => $"scope of {Rule.Title}, by checklist {list.InWords}",
        ({ ByMaker: true }, null) => $"{Rule.Title}, whose title and revision are still to be stated",
        _ => $"scope of {Rule!.Title}",
    };
}
