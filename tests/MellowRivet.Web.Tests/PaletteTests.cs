using System.Globalization;
using System.Text.RegularExpressions;

namespace MellowRivet.Web.Tests;

/// <summary>
/// Whatever is written in one of the palette's colours can be read on the grounds it stands on, by day and in the night hangar: at
/// least 4.5 to 1 (WCAG 2.1, 1.4.3). The browser tests look at the pages themselves, in one of the two.
/// </summary>
public class PaletteTests
{
    private static readonly string[] Inks = ["ink", "soft", "green", "amber", "red"];
    private static readonly string[] Grounds = ["paper", "sheet", "field", "line-soft"];

    private static Dictionary<string, string> Palette(string light)
    {
        var roots = Regex.Matches(SourceTree.Read("src/MellowRivet.Web/Browser/site.css"), @":root(?:\[data-light=sun\])? \{(.*?)\}",
            RegexOptions.Singleline);
        var root = roots[Array.IndexOf(["day", "night", "sun"], light)].Groups[1].Value;
        return Regex.Matches(root, @"--([a-z-]+): #([0-9a-f]{3}|[0-9a-f]{6});")
            .ToDictionary(colour => colour.Groups[1].Value, colour => colour.Groups[2].Value);
    }

    private static double Luminance(string colour)
    {
        var whole = colour.Length == 3 ? string.Concat(colour.Select(digit => $"{digit}{digit}")) : colour;
        var parts = Enumerable.Range(0, 3)
            .Select(part => int.Parse(whole.AsSpan(part * 2, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0)
            .Select(part => part <= 0.03928 ? part / 12.92 : Math.Pow((part + 0.055) / 1.055, 2.4)).ToArray();
        return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2];
    }

    private static double Contrast(string one, string other)
    {
        var (light, dark) = (Math.Max(Luminance(one), Luminance(other)), Math.Min(Luminance(one), Luminance(other)));
        return (light + 0.05) / (dark + 0.05);
    }

    // Black on white is 21 to 1 by the definition; 767676 is known as the lightest grey that passes on white, at 4.54.
    [Theory]
    [InlineData("000", "fff", 21)]
    [InlineData("767676", "ffffff", 4.54)]
    public void The_measure_is_the_one_of_the_guidelines(string one, string other, double contrast) =>
        Contrast(one, other).ShouldBe(contrast, 0.005);

    // In the sun it is 7 to 1 (WCAG 2.1, 1.4.6).
    [Theory]
    [InlineData("day", 4.5)]
    [InlineData("night", 4.5)]
    [InlineData("sun", 7)]
    public void Every_ink_can_be_read_on_every_ground(string light, double least)
    {
        var palette = Palette(light);
        var pairs = Inks.SelectMany(ink => Grounds.Select(ground => (ink, ground)))
            .Concat(Inks.Skip(2).SelectMany(ink => new[] { (ink, $"{ink}-tint"), ("ink", $"{ink}-tint"), ("soft", $"{ink}-tint") }))
            .Concat([("ink", "plate-from"), ("ink", "plate-to"), ("soft", "plate-from"), ("on-green", "green")]);
        pairs.Where(pair => Contrast(palette[pair.Item1], palette[pair.Item2]) < least).Select(pair => $"{pair.Item1} on {pair.Item2}")
            .ShouldBeEmpty();
    }

    // What is printed is black on white, labels have a ground of their own, and a photo's marks stand on the photo.
    [Fact]
    public void Words_have_no_other_colours() =>
        SourceTree.Files("src/MellowRivet.Web")
            .Where(file => file.EndsWith(".css", StringComparison.Ordinal)
                && Path.GetFileName(file) is not ("print.css" or "look.css" or "found.css"))
            .SelectMany(file => Regex.Matches(SourceTree.Read(file), @"(?<![-\w])color: *(#\w+|rgb\w*\([^)]*\)|[a-z]+)")
                .Select(colour => $"{Path.GetFileName(file)}: {colour.Groups[1].Value}"))
            .Where(colour => !colour.EndsWith("inherit", StringComparison.Ordinal)
                && !colour.EndsWith("transparent", StringComparison.Ordinal)
                && !colour.EndsWith("var", StringComparison.Ordinal)).ShouldBeEmpty();
}
