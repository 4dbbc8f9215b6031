using Microsoft.AspNetCore.WebUtilities;

namespace MellowRivet.Web.Pages.Shared;

/// <summary>One page of a list that is too long for one, and the way to the others.</summary>
/// <param name="Shown">What stands on it.</param>
/// <param name="At">Which page it is, from 1.</param>
/// <param name="Pages">How many there are, at least 1.</param>
/// <param name="Total">How much is in the whole list.</param>
public sealed record ListPage<T>(IReadOnlyList<T> Shown, int At, int Pages, int Total)
{
    /// <summary>The same page with something else for each line.</summary>
    public ListPage<TOther> Select<TOther>(Func<T, TOther> to) => new([.. Shown.Select(to)], At, Pages, Total);

    /// <summary>The way to its other pages.</summary>
    /// <param name="path">The list's own address.</param>
    /// <param name="asked">What was asked of the list, which every page keeps; null values are left out.</param>
    public PageLinks Links(string path, params (string Name, string? Value)[] asked) =>
        new(At, Pages, QueryHelpers.AddQueryString(path, asked.Where(one => !string.IsNullOrWhiteSpace(one.Value))
            .ToDictionary(one => one.Name, one => one.Value)));
}

/// <summary>The way from one page of a list to the next.</summary>
public sealed record PageLinks(int At, int Pages, string Here)
{
    public string HrefOf(int page) => QueryHelpers.AddQueryString(Here, "page", $"{page}");
}

public static class ListPage
{
    /// <param name="all">The whole list.</param>
    /// <param name="at">The page that is asked for; one that there isn't gives the nearest.</param>
    /// <param name="most">How much stands on a page.</param>
    public static ListPage<T> Of<T>(IReadOnlyList<T> all, int? at, int most)
    {
        var (page, pages) = At(all.Count, at, most);
        return new([.. all.Skip((page - 1) * most).Take(most)], page, pages, all.Count);
    }

    /// <summary>Which page of a list that isn't at hand, and how many there are.</summary>
    public static (int At, int Pages) At(int total, int? at, int most)
    {
        var pages = Math.Max(1, (total + most - 1) / most);
        return (Math.Clamp(at ?? 1, 1, pages), pages);
    }
}
