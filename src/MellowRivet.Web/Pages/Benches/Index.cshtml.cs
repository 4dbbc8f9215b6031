namespace MellowRivet.Web.Pages.Benches;

/// <summary>What lies on the bench.</summary>
public sealed class BenchIndexModel : BenchPage;
