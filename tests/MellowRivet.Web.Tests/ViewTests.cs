using System.Reflection;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Tests;

/// <summary>What a page shows is one view: a model beside it holds only what its address and its form say.</summary>
public sealed class ViewTests
{
    private static readonly Type[] Bound = [typeof(FromRouteAttribute), typeof(FromQueryAttribute), typeof(BindPropertyAttribute)];

    private static IEnumerable<Type> Pages => typeof(ShopPage).Assembly.GetTypes()
        .Where(type => !type.IsAbstract && type.IsSubclassOf(typeof(PageModel)));

    // Of its own and of the classes it comes from, up to the one that has the view.
    private static IEnumerable<PropertyInfo> Of(Type page) => page.GetProperties(BindingFlags.Public | BindingFlags.Instance)
        .Where(property => property.DeclaringType!.Assembly == page.Assembly
            && property.Name is not (nameof(ShopPage.Shown) or nameof(ShopPage<PageView>.View)));

    [Fact]
    public void A_model_shows_nothing_beside_its_view() =>
        Pages.SelectMany(page => Of(page).Where(property => !Bound.Any(bound => property.IsDefined(bound)))
            .Select(property => $"{page.Name}.{property.Name}")).ShouldBeEmpty();

    [Fact]
    public void A_view_is_made_in_one_place_and_only_read_from_then_on() =>
        typeof(ShopPage).Assembly.GetTypes().Where(type => type.IsSubclassOf(typeof(PageView)))
            .SelectMany(view => view.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                .Where(property => property.SetMethod is { IsPublic: true } set
                    && !set.ReturnParameter.GetRequiredCustomModifiers()
                        .Contains(typeof(System.Runtime.CompilerServices.IsExternalInit)))
                .Select(property => $"{view.Name}.{property.Name}")).ShouldBeEmpty();

    [Fact]
    public void There_are_such_pages() => Pages.Count(page => page.IsSubclassOf(typeof(ShopPage))).ShouldBeGreaterThan(50);
}
