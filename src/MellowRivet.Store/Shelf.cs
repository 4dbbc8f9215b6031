using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Store;

/// <summary>The shop's shelf: worksheets and rule packs as JSON files, shipped with the product and the shop's own from then on.</summary>
public sealed class Shelf
{
    private Shelf(IReadOnlyList<Worksheet> worksheets, RulePack rules) => (Worksheets, Rules) = (worksheets, rules);

    public IReadOnlyList<Worksheet> Worksheets { get; }

    /// <summary>The rule pack in force.</summary>
    public RulePack Rules { get; }

    /// <summary>Puts files on the shelf that aren't there yet, then reads them all.</summary>
    /// <param name="data">The shop's data.</param>
    /// <param name="shipped">The folder of files that ship with the product.</param>
    /// <exception cref="FormatException">A file can't be read; the message names it.</exception>
    public static Shelf Open(DataFolder data, string shipped)
    {
        foreach (var file in Directory.EnumerateFiles(shipped, "*.json", SearchOption.AllDirectories))
        {
            var place = Path.Combine(data.Shelf, Path.GetRelativePath(shipped, file));
            Directory.CreateDirectory(Path.GetDirectoryName(place)!);
            if (!File.Exists(place))
                File.Copy(file, place);
        }
        return new(Read(data, "worksheets", Worksheet.Parse),
            Read(data, "rule-packs", RulePack.Parse).OrderBy(pack => pack.Effective).LastOrDefault() ?? throw new FormatException("There is no rule pack on the shelf."));
    }

    /// <summary>A worksheet's file as it lies on the shelf.</summary>
    public static string? FileOf(DataFolder data, string folder, string key) =>
        Directory.EnumerateFiles(Path.Combine(data.Shelf, folder), "*.json").FirstOrDefault(file => Path.GetFileNameWithoutExtension(file) == key);

    private static List<T> Read<T>(DataFolder data, string folder, Func<string, T> parse) =>
    [
        .. Directory.EnumerateFiles(Path.Combine(data.Shelf, folder), "*.json").Order(StringComparer.Ordinal).Select(file =>
        {
            try
            {
                return parse(File.ReadAllText(file));
            }
            catch (FormatException problem)
            {
                throw new FormatException($"{Path.GetRelativePath(data.Path, file)}: {problem.Message}", problem);
            }
        }),
    ];
}
