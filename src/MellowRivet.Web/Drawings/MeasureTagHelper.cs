using Microsoft.AspNetCore.Razor.TagHelpers;

namespace MellowRivet.Web.Drawings;

/// <summary>
/// A field that takes a measure as hands write it, 4.7k or 18 thou: what was understood stands behind it while it is typed
/// (measures.js asks).
/// </summary>
[HtmlTargetElement("input", Attributes = MeasureName, TagStructure = TagStructure.WithoutEndTag)]
[HtmlTargetElement("input", Attributes = OfName, TagStructure = TagStructure.WithoutEndTag)]
public sealed class MeasureTagHelper : TagHelper
{
    private const string MeasureName = "measure", OfName = "measure-of";

    /// <summary>The symbol of the unit a number without one is read in; null for a field that takes none.</summary>
    [HtmlAttributeName(MeasureName)]
    public string? Measure { get; set; }

    /// <summary>The name of the choice in the same form that says the unit instead.</summary>
    [HtmlAttributeName(OfName)]
    public string? Of { get; set; }

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        if (Measure is null && Of is null)
            return;
        output.Attributes.SetAttribute("data-measure", Measure ?? "");
        if (Of is not null)
            output.Attributes.SetAttribute("data-measure-of", Of);
        output.PostElement.AppendHtml("<span class=\"understood\" role=\"status\"></span>");
    }
}
