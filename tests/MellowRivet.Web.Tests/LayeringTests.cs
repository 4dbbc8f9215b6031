using System.Reflection;
using System.Text.RegularExpressions;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Mono.Cecil;
using NetArchTest.Rules;

namespace MellowRivet.Web.Tests;

public class LayeringTests
{
    [Fact]
    public void Core_knows_no_web_and_no_database() =>
        Types.InAssembly(typeof(Inspection).Assembly).ShouldNot()
            .HaveDependencyOnAny("Microsoft.AspNetCore", "Microsoft.EntityFrameworkCore", "Microsoft.Data", "MellowRivet.Store",
                "MellowRivet.Web", "SkiaSharp")
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

    // What a page shows it asks for by name, in the store's query class of its subject: a query written in a page is found by nobody.
    // Every instruction is looked at, those of handlers that wait too: a call on a table of the database gives a type of EF's.
    [Fact]
    public void No_page_no_interface_and_no_export_asks_the_database_itself()
    {
        using var web = AssemblyDefinition.ReadAssembly(typeof(RivetApp).Assembly.Location);
        var types = web.MainModule.Types.Where(
            type => Regex.IsMatch(type.Namespace, @"^(MellowRivet\.Web\.(Pages|Api|Handover|Drawings)|AspNetCoreGeneratedDocument)"))
                .SelectMany(WithNested).ToList();
        types.Count.ShouldBeGreaterThan(500);
        types.SelectMany(type => type.Methods)
            .Where(method => method.HasBody
                && method.Body.Instructions.Select(one => one.Operand).OfType<MemberReference>().Any(IsOfDatabase))
            .Select(method => $"{method.DeclaringType.FullName}.{method.Name}").ShouldBeEmpty();

        bool IsOfDatabase(MemberReference member) =>
            new[] { member as TypeReference, member.DeclaringType, (member as MethodReference)?.ReturnType,
                (member as FieldReference)?.FieldType }
            .Any(type => type?.GetElementType().Namespace is { } from
                && (from.StartsWith("Microsoft.EntityFrameworkCore", StringComparison.Ordinal)
                    || from.StartsWith("Microsoft.Data", StringComparison.Ordinal)));
    }

    // The save raises versions and marks; a statement that goes past it may touch only what none of them counts.
    [Fact]
    public void Nothing_that_is_counted_is_written_past_the_save()
    {
        using var store = AssemblyDefinition.ReadAssembly(typeof(RivetDb).Assembly.Location);
        var calls = store.MainModule.Types.Where(type => type.Namespace is "MellowRivet.Store" && type.Name is not nameof(RivetDb))
            .SelectMany(WithNested)
            .SelectMany(type => type.Methods.Where(method => method.HasBody)
                .SelectMany(method => method.Body.Instructions.Select(one => one.Operand).OfType<MethodReference>()
                    .Select(call => (Type: type.FullName.Split('/')[0], call)))).ToList();
        calls.Where(one => one.call.Name is "ExecuteUpdateAsync" or "ExecuteDeleteAsync" or "ExecuteUpdate" or "ExecuteDelete")
            .Select(one => ((GenericInstanceMethod)one.call).GenericArguments[0].Name).Distinct()
            .ShouldBe([nameof(OwnerLink), nameof(Posting), nameof(Session), nameof(KeptPlan)], ignoreOrder: true);
        calls.Where(one => one.call.Name.StartsWith("ExecuteSql", StringComparison.Ordinal)).Select(one => one.Type.Split('.')[^1])
            .Distinct()
            .ShouldBe([nameof(ShopDatabase), nameof(ChangeCounts), nameof(WhereaboutsQueries)], ignoreOrder: true);
    }

    private static IEnumerable<TypeDefinition> WithNested(TypeDefinition type) => type.NestedTypes.SelectMany(WithNested).Prepend(type);

    // A handler that changes something must say which right that needs; entering, leaving and the first run are for everyone, and an
    // owner's link is its own right.
    [Fact]
    public void Every_handler_that_changes_something_names_the_right_it_needs() =>
        typeof(RivetApp).Assembly.GetTypes()
            .Where(type => type.IsSubclassOf(typeof(PageModel))
                && type.Namespace is not ("MellowRivet.Web.Pages.Account" or "MellowRivet.Web.Pages.Owners"))
            .SelectMany(type => type.GetMethods(BindingFlags.Public | BindingFlags.Instance))
            .Where(method => method.Name.StartsWith("OnPost", StringComparison.Ordinal)
                && method.GetCustomAttribute<NeedsAttribute>() is null)
            .Select(method => $"{method.DeclaringType!.Name}.{method.Name}").ShouldBeEmpty();
}
