namespace MellowRivet.Web.Pages.Problem;

/// <summary>What to say for each status a person can run into.</summary>
public static class ProblemWords
{
    public static (string Title, string Text) Of(int status) => status switch
    {
        400 => ("That form was too old",
            "The page had been open too long to be sent safely. Go back, load it anew and send it again; nothing was changed."),
        403 => ("Not yours to do",
            "Your role in this shop doesn't carry the right to do this. Nothing was changed. "
            + "The shop admin can change roles under People."),
        404 => ("Nothing there", "There is nothing at this address. It may belong to another shop's data, or be mistyped."),
        413 =>
            ("Too large",
                "What was sent is larger than 200 MB in one go. Send fewer pictures at once; your words are still on the page before."),
        422 => ("A field can’t be read", "Go back: what you typed still stands there. Load the page anew if it was open for long."),
        429 => ("Too many tries", "Too many requests came from this device in a minute. Wait a minute and try again."),
        507 => ("No room on the disk",
            "There is no room on the disk of the machine that the shop runs on. Nothing was changed, and what was saved before is safe. Go "
            + "back: what you typed still stands there. Send it again once there is room."),
        _ => ("Something broke here", "The fault is ours. What was saved before is safe; go back and try again."),
    };
}
