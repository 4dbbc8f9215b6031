namespace MellowRivet.Web.Pages.Fleet.Parts;

/// <summary>The rows of what sits on one part, and on those in turn.</summary>
public sealed record PartRows(PartsView Page, Guid? On, int Depth);
