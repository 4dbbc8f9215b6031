using MellowRivet.Core.Judgements;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace MellowRivet.Web.Drawings;

/// <summary>
/// Draws a state's shape. Beside its word it is silent to a screen reader; alone it says the word, or the label it is given.
/// </summary>
[HtmlTargetElement("state", TagStructure = TagStructure.WithoutEndTag)]
public sealed class StateTagHelper : TagHelper
{
    public State Of { get; set; }

    /// <summary>What a screen reader says; left out beside a word that is there already.</summary>
    public string? Label { get; set; }

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("class", $"state state-{Name(Of)}");
        output.Attributes.SetAttribute("viewBox", "0 0 16 16");
        if (Label is null)
            output.Attributes.SetAttribute("aria-hidden", "true");
        else
        {
            output.Attributes.SetAttribute("role", "img");
            output.Attributes.SetAttribute("aria-label", Label);
        }
        output.Content.SetHtmlContent($"<use href=\"#s-{Name(Of)}\"/>");
    }

    public static string Name(State state) => state switch
    {
        State.NotHere => "not-here",
        State.NotYet => "not-yet",
        State.KnownMark => "known-mark",
        State.CannotTell => "cannot-tell",
        _ => state.ToString().ToLowerInvariant(),
    };
}
