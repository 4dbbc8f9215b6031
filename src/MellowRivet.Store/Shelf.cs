using System.Security.Cryptography;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Store;

/// <summary>
/// The shop's shelf: rule packs and other rules as JSON files, shipped with the product and the shop's own from then on, and
/// the worksheets that ship with it.
/// </summary>
public sealed class Shelf
{
    /// <summary>
    /// Worksheets that came with the product, or lie as files in the shop's folder. The shop's own editions are in its database.
    /// </summary>
    public required IReadOnlyList<Worksheet> Worksheets { get; init; }

    /// <summary>The rule packs, the one that took effect last first.</summary>
    public required IReadOnlyList<RulePack> RulePacks { get; init; }

    /// <summary>How logbook entries are worded, by the template's key.</summary>
    public required IReadOnlyDictionary<string, EntryTemplate> EntryTemplates { get; init; }

    /// <summary>Jobs that are usually done without an inspection, offered in an aircraft's file.</summary>
    public required IReadOnlyList<UsualJob> UsualJobs { get; init; }

    /// <summary>What jobs usually take, counted from the engine.</summary>
    public required IReadOnlyList<Kit> Kits { get; init; }

    /// <summary>What usually falls due, offered when an aircraft is made.</summary>
    public required IReadOnlyList<DueStarter> DueStarters { get; init; }

    /// <summary>What is usually found and what it means.</summary>
    public required IReadOnlyList<UsualFinding> UsualFindings { get; init; }

    /// <summary>What is never deferred.</summary>
    public required IReadOnlyList<NeverDeferred> NeverDeferred { get; init; }

    /// <summary>What the words of a finding mean.</summary>
    public required Meaning Meaning { get; init; }

    /// <summary>What a survey is weighed by.</summary>
    public required SurveyRules Surveys { get; init; }

    /// <summary>What a class may be set to.</summary>
    public ClassRules Classes => new(UsualFindings, NeverDeferred, Meaning);

    /// <summary>The rules and people that an inspection on a category of aircraft is weighed by.</summary>
    public ShopRules Weigh(Category category, IReadOnlyDictionary<Guid, Person> people, TimeProvider clock)
    {
        var pack = RulesFor(category);
        return new(pack, Classes, EntryTemplates[pack.Entries ?? EntryTemplate.Usual], people, clock);
    }

    /// <summary>Who may do which job.</summary>
    public required WhoMay WhoMay { get; init; }

    /// <summary>The rule pack that knows who signs for a category; the first where none does.</summary>
    public RulePack RulesFor(Category category) => RulePacks.FirstOrDefault(pack => pack.Covers(category)) ?? RulePacks[0];

    /// <summary>
    /// Puts files on the shelf that aren't there yet, then reads them all. A file that the shop never touched, still as it came
    /// with an earlier release, gives way to this one's: earlier.txt lists what those were. What the shop changed stays.
    /// </summary>
    /// <param name="data">The shop's data.</param>
    /// <param name="shipped">The folder of files that ship with the product.</param>
    /// <exception cref="FormatException">A file can't be read; the message names it.</exception>
    public static Shelf Open(DataFolder data, string shipped)
    {
        var earlier = File.ReadAllLines(Path.Combine(shipped, "earlier.txt")).ToHashSet();
        foreach (var file in Directory.EnumerateFiles(shipped, "*.json", SearchOption.AllDirectories))
        {
            if (Path.GetFileName(Path.GetDirectoryName(file)) == "worksheets")
                continue;
            var place = Path.Combine(data.Shelf, Path.GetRelativePath(shipped, file));
            Directory.CreateDirectory(Path.GetDirectoryName(place)!);
            if (!File.Exists(place)
                || earlier.Contains(
                    $"{Convert.ToHexStringLower(SHA256.HashData(File.ReadAllBytes(place)))} "
                    + $"{Path.GetRelativePath(shipped, file).Replace('\\', '/')}"))
                File.Copy(file, place, overwrite: true);
        }
        // Of what a pack that the shop has from before doesn't speak, the shipped one's rules hold.
        var own = Read(shipped, "rule-packs", RulePack.Parse).ToLookup(pack => pack.Key);
        var packs = Read(data.Shelf, "rule-packs", RulePack.Parse)
            .Select(pack => own[pack.Key].FirstOrDefault() is { } shippedPack ? pack.FilledFrom(shippedPack) : pack)
            .OrderByDescending(pack => pack.Effective).ToList();
        var read = Read(data.Shelf, "entries", EntryTemplate.Parse);
        if (read.GroupBy(template => template.Key).FirstOrDefault(same => same.Count() > 1) is { } twice)
            throw new FormatException($"entries: there are two templates '{twice.Key}'.");
        var usual = Read(shipped, "entries", EntryTemplate.Parse).Single(template => template.Key == EntryTemplate.Usual);
        var templates = read.ToDictionary(template => template.Key, template => template.FilledFrom(usual));
        if (packs.FirstOrDefault(pack => !templates.ContainsKey(pack.Entries ?? EntryTemplate.Usual)) is { } unworded)
            throw new FormatException(
                $"Rule pack '{unworded.Key}': there is no entry template '{unworded.Entries ?? EntryTemplate.Usual}'.");
        return new()
        {
            Worksheets = [.. Read(shipped, "worksheets", Worksheet.Parse)
                .Concat(Directory.Exists(Path.Combine(data.Shelf, "worksheets")) ? Read(data.Shelf, "worksheets", Worksheet.Parse) : [])
                .GroupBy(sheet => sheet.Key).Select(editions => editions.MaxBy(sheet => sheet.Version)!)],
            EntryTemplates = templates,
            UsualJobs = [.. Read(data.Shelf, "jobs", UsualJob.Parse).SelectMany(jobs => jobs)],
            Kits = [.. Read(data.Shelf, "kits", Kit.Parse).SelectMany(kits => kits)],
            RulePacks = packs.Count > 0 ? packs : throw new FormatException("There is no rule pack on the shelf."),
            WhoMay = Read(data.Shelf, "who-may", WhoMay.Parse) is [var first, ..]
                ? first
                : throw new FormatException("There is no list of who may do what on the shelf."),
            UsualFindings = [.. Read(data.Shelf, "findings", UsualFinding.Parse).SelectMany(findings => findings)],
            Meaning = Read(data.Shelf, "meaning", Meaning.Parse) is [var meaning, ..]
                ? meaning
                : throw new FormatException("There is no list of parts on the shelf."),
            Surveys = Read(data.Shelf, "survey", SurveyRules.Parse) is [var survey, ..] ? survey : SurveyRules.Usual,
            NeverDeferred = [.. Read(data.Shelf, "deferral", Core.Discrepancies.NeverDeferred.Parse).SelectMany(never => never)],
            DueStarters = [.. Read(data.Shelf, "due", DueStarter.Parse).SelectMany(starters => starters)],
        };
    }

    /// <summary>A rule file as it lies on the shelf.</summary>
    public static string? FileOf(DataFolder data, string folder, string key) =>
        Directory.EnumerateFiles(Path.Combine(data.Shelf, folder), "*.json")
            .FirstOrDefault(file => Path.GetFileNameWithoutExtension(file) == key);

    private static List<T> Read<T>(string shelf, string folder, Func<string, T> parse) =>
    [
        .. Directory.EnumerateFiles(Path.Combine(shelf, folder), "*.json").Order(StringComparer.Ordinal).Select(file =>
        {
            try
            {
                return parse(File.ReadAllText(file));
            }
            catch (FormatException problem)
            {
                throw new FormatException($"{Path.Combine(folder, Path.GetFileName(file))}: {problem.Message}", problem);
            }
        }),
    ];
}
