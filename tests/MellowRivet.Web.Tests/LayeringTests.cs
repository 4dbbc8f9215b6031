using System.Reflection;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting;
using Microsoft.AspNetCore.Mvc.RazorPages;
using NetArchTest.Rules;

namespace MellowRivet.Web.Tests;

public class LayeringTests
{
    [Fact]
    public void Core_knows_no_web_and_no_database() =>
        Types.InAssembly(typeof(Inspection).Assembly).ShouldNot()
            .HaveDependencyOnAny("Microsoft.AspNetCore", "Microsoft.EntityFrameworkCore", "Microsoft.Data", "MellowRivet.Store", "MellowRivet.Web", "SkiaSharp")
            .GetResult().FailingTypeNames.ShouldBeNull();

    [Fact]
    public void The_store_knows_no_pages() =>
        Types.InAssembly(typeof(RivetDb).Assembly).ShouldNot()
            .HaveDependencyOnAny("MellowRivet.Web", "Microsoft.AspNetCore.Mvc", "Microsoft.AspNetCore.Http")
            .GetResult().FailingTypeNames.ShouldBeNull();

    [Fact]
    public void The_instruments_know_only_core() =>
        Types.InAssembly(typeof(MellowRivet.Devices.ICompressionTester).Assembly).ShouldNot()
            .HaveDependencyOnAny("MellowRivet.Web", "MellowRivet.Store", "Microsoft.AspNetCore", "Microsoft.EntityFrameworkCore")
            .GetResult().FailingTypeNames.ShouldBeNull();

    // A handler that changes something must say which right that needs; entering, leaving and the first run are for everyone, and an owner's link is its own right.
    [Fact]
    public void Every_handler_that_changes_something_names_the_right_it_needs() =>
        typeof(RivetApp).Assembly.GetTypes()
            .Where(type => type.IsSubclassOf(typeof(PageModel)) && type.Namespace is not ("MellowRivet.Web.Pages.Account" or "MellowRivet.Web.Pages.Owners"))
            .SelectMany(type => type.GetMethods(BindingFlags.Public | BindingFlags.Instance))
            .Where(method => method.Name.StartsWith("OnPost", StringComparison.Ordinal) && method.GetCustomAttribute<NeedsAttribute>() is null)
            .Select(method => $"{method.DeclaringType!.Name}.{method.Name}").ShouldBeEmpty();
}
