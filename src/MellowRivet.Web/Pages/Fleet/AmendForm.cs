using System.Security.Claims;
using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Measures;
using MellowRivet.Store;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>Something that is put right, as it is sent.</summary>
public sealed class AmendForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();

    /// <summary>The very thing: a reading, a due item.</summary>
    public Guid Subject { get; set; }

    /// <summary>Which time something was done, from the earliest at 0.</summary>
    public int Index { get; set; }
    public DateOnly? On { get; set; }
    public string? Value { get; set; }
    public string? Landings { get; set; }
    public string? Cycles { get; set; }
    public string? Reference { get; set; }

    /// <summary>Nothing takes its place.</summary>
    public bool Strike { get; set; }
    public string? Why { get; set; }

    public PuttingRight By(ClaimsPrincipal user, TimeProvider clock) => new(Post, Why, user.Sets(clock), clock.Today());

    /// <summary>What is no figure; null where everything is one, or empty.</summary>
    public Refusal? Check() => new[] { Value, Landings, Cycles }.Any(typed => !string.IsNullOrWhiteSpace(typed)
        && TypedNumber.ParseHours(typed) is null) ? new("amendHours", "A number, as 4318.6; leave it empty where it isn’t known.") : null;

    /// <summary>The time something was done, as it takes the place of another; null to strike that alone.</summary>
    public LastDone? ToDone(LastDone? was) => Strike ? null : new(On, TypedNumber.ParseHours(Value)?.Value, was?.WasDueHours,
        TypedNumber.ParseHours(Landings)?.Value, TypedNumber.ParseHours(Cycles)?.Value, Reference?.Trim() ?? "");
}
