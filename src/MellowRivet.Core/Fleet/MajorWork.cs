namespace MellowRivet.Core.Fleet;

/// <summary>A repair, or an alteration.</summary>
public enum MajorKind { Repair = 1, Alteration }

/// <summary>
/// A major repair or alteration, of the kind that a form is made out for (14 CFR 43.9(d) and appendix B, from memory). The form goes with
/// the aircraft: what is here says where it is.
/// </summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">A repair, or an alteration.</param>
/// <param name="On">The day it was approved; null where the papers don't say.</param>
/// <param name="What">What was done.</param>
/// <param name="Form">The form, by number or date, and where it lies.</param>
public sealed record MajorWork(Guid Id, MajorKind Kind, DateOnly? On, string What, string Form)
{
    public const int LongestWhat = 300, LongestForm = 80;

    /// <summary>One as it is typed, or what is wrong with it.</summary>
    public static (MajorWork? Work, Refusal? Refusal) Read(Guid id, MajorKind kind, DateOnly? on, string? what, string? form,
        DateOnly today)
    {
        if (!Enum.IsDefined(kind))
            return (null, new("kind", "A repair, or an alteration."));
        if (on > today)
            return (null, new("on", "That day is still to come."));
        if (string.IsNullOrWhiteSpace(what) || what.Trim().Length > LongestWhat)
            return (null, new("what", $"What was repaired or altered, in up to {LongestWhat} characters."));
        return string.IsNullOrWhiteSpace(form) || form.Trim().Length > LongestForm
            ? (null, new("papers", $"The form: its number or date, and where it lies, in up to {LongestForm} characters."))
            : (new(id, kind, on, what.Trim(), form.Trim()), null);
    }
}
