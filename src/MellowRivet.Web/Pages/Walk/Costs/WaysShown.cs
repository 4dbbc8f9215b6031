using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Web.Pages.Walk.Costs;

/// <summary>Ways side by side, as the shop and the owner see them.</summary>
/// <param name="Choice">What is to be decided.</param>
/// <param name="Inspection">The inspection it belongs to.</param>
/// <param name="Action">Where one of them is taken; null where it can't be.</param>
/// <param name="Says">What the button to take one says.</param>
public sealed record WaysShown(Choice Choice, Inspection Inspection, string? Action, string Says);
