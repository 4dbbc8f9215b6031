using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Worksheets;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace MellowRivet.Store.Tests;

/// <summary>
/// What was ever stored is read by this program. Carried/shapes.tsv has a row of every JSON column of every release, Carried/words.tsv
/// every word that a member of a stored enum ever went by. A release that changes either adds its own lines and leaves the old ones.
/// </summary>
public class StoredShapesTests
{
    private static readonly string Here = AppContext.BaseDirectory;

    private static IReadOnlyList<string[]> Lines(string file) =>
        [.. File.ReadLines(Path.Combine(Here, "Carried", file)).Where(line => line.Length > 0 && line[0] != '#')
            .Select(line => line.Split('\t'))];

    private static IEnumerable<IProperty> Columns()
    {
        using var db = RivetDb.Of(new(Path.Combine(Path.GetTempPath(), "no-such-shop")));
        return [.. db.Model.GetEntityTypes().SelectMany(entity => entity.GetProperties())];
    }

    private static string NameOf(IProperty property) => $"{property.DeclaringType.ClrType.Name}.{property.GetColumnName()}";

    // Bulletins and worksheets have grammars of their own, and tests of those.
    private static bool IsJson(IProperty property) =>
        property.GetValueConverter()?.GetType() is { IsGenericType: true, Name: "JsonText`1" };

    private static IEnumerable<Type> StoredWords() =>
        Columns()
            .SelectMany(property => Within(IsJson(property) || property.ClrType.IsEnum || property.ClrType == typeof(Bulletin)
                || property.ClrType == typeof(Worksheet)
                ? property.ClrType
                : Nullable.GetUnderlyingType(property.ClrType) ?? typeof(string), [])).Where(type => type.IsEnum).Distinct();

    private static IEnumerable<Type> Within(Type type, HashSet<Type> seen)
    {
        type = Nullable.GetUnderlyingType(type) ?? type;
        if (!seen.Add(type))
            return [];
        if (type.IsGenericType)
            return type.GetGenericArguments().SelectMany(argument => Within(argument, seen));
        return type.Namespace?.StartsWith("MellowRivet", StringComparison.Ordinal) == true && !type.IsEnum
            ? type.GetProperties().SelectMany(property => Within(property.PropertyType, seen)).Prepend(type)
            : [type];
    }

    [Fact]
    public void Every_shape_of_every_release_is_read()
    {
        var columns = Columns().ToDictionary(NameOf);
        var lines = Lines("shapes.tsv");
        lines.Select(line => line[0]).Distinct().Count().ShouldBeGreaterThan(1, "more than one release");
        foreach (var line in lines)
            Should.NotThrow(() => columns[line[1]].GetValueConverter()!.ConvertFromProvider(line[2])
                .ShouldNotBeNull(), $"{line[0]} {line[1]}");
    }

    [Fact]
    public void What_is_stored_now_has_its_row()
    {
        var now = Columns().Where(IsJson).OrderBy(NameOf, StringComparer.Ordinal)
            .Select(property => (Name: NameOf(property),
                Text: (string)property.GetValueConverter()!.ConvertToProvider(Full.Of(property.ClrType))!)).ToList();
        File.WriteAllLines(Path.Combine(Here, "shapes.now.tsv"), now.Select(one => $"RELEASE\t{one.Name}\t{one.Text}"));
        var latest = Lines("shapes.tsv").GroupBy(line => line[1]).ToDictionary(group => group.Key, group => group.Last()[2]);
        now.Where(one => latest.GetValueOrDefault(one.Name) != one.Text).Select(one => one.Name).ShouldBeEmpty(
            $"these shapes changed: see that what is stored is still read, by a step in StoredShapes where it takes one, and add their "
            + $"lines of {Path.Combine(Here, "shapes.now.tsv")} to Carried/shapes.tsv");
        now.ShouldAllBe(one => one.Text.StartsWith("{\"v\":"));
    }

    [Fact]
    public void Every_word_that_was_ever_stored_is_read_and_those_of_now_are_on_the_list()
    {
        var words = StoredWords().ToDictionary(type => type.Name);
        File.WriteAllLines(Path.Combine(Here, "words.now.tsv"), words.Values.OrderBy(type => type.Name, StringComparer.Ordinal)
            .SelectMany(type => Enum.GetNames(type).Select(name => $"{type.Name}\t{name}")));
        var ever = Lines("words.tsv").Select(line => (Type: line[0], Word: line[1])).ToHashSet();
        words.Values.SelectMany(type => Enum.GetNames(type).Select(name => (type.Name, name))).Where(word => !ever.Contains(word))
            .ShouldBeEmpty($"add them to Carried/words.tsv, as {Path.Combine(Here, "words.now.tsv")} has them");
        foreach (var (type, word) in ever)
            Should.NotThrow(() => typeof(EnumNames).GetMethod(nameof(EnumNames.Read))!.MakeGenericMethod(words[type])
                .Invoke(null, [word]), $"{type}.{word}: [Formerly] says what it is called now");
    }

    private static readonly System.Text.Json.JsonSerializerOptions Words = new() { Converters = { new EnumWords() } };

    private enum Told
    {
        [Formerly("Sayed"), Formerly("Stated")]
        Said = 1,
    }

    [Theory]
    [InlineData("Said")]
    [InlineData("Sayed")]
    [InlineData("stated")]
    public void A_member_that_was_renamed_is_read_by_its_former_names(string word)
    {
        EnumNames.Read<Told>(word).ShouldBe(Told.Said);
        System.Text.Json.JsonSerializer.Deserialize<Told>($"\"{word}\"", Words).ShouldBe(Told.Said);
        Should.Throw<FormatException>(() => EnumNames.Read<Told>("1")).Message.ShouldContain("is and was no Told");
    }

    [Fact]
    public void What_a_later_release_wrote_is_not_read_as_if_it_were_this_ones() =>
        Should.Throw<Exception>(() => Columns().First(IsJson).GetValueConverter()!.ConvertFromProvider("{\"v\":99,\"is\":[]}")).ToString()
            .ShouldContain("was written by a later release");
}
