using MellowRivet.Core.People;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>What lies on the bench.</summary>
public sealed record BenchIndexView(BenchTyped In) : BenchView(In);

/// <summary>What lies on the bench.</summary>
[Needs(Right.Look)]
public sealed class BenchIndexModel : BenchPage<BenchIndexView>
{
    protected override BenchIndexView? Answer(BenchTyped typed) => new(typed);
}
