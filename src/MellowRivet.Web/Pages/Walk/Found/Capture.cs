using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;
using MellowRivet.Store;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Something found, as it is sent.</summary>
public sealed class FindForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public string? What { get; set; }
    public string? Zone { get; set; }
    public string? Where { get; set; }

    /// <summary>Airworthiness until a person says less: the cautious way round.</summary>
    public DiscrepancyClass Class { get; set; } = DiscrepancyClass.Airworthiness;

    /// <summary>Nobody has touched the class: it is guessed from the words, also of what was written without a connection.</summary>
    public bool Guess { get; set; }
    public bool Grounded { get; set; }

    /// <summary>It is an object that doesn't belong there: it goes into the log of found objects as well.</summary>
    public bool Foreign { get; set; }
    public string? Note { get; set; }
    public string? Measured { get; set; }
    public FoundHow How { get; set; } = FoundHow.Visual;
    public Guid? Task { get; set; }

    /// <summary>The judgement that it is written down for; null for none.</summary>
    public string? Judged { get; set; }

    /// <summary>Why it is less than the judgement or the words say, and by which data.</summary>
    public string? Why { get; set; }
    public string? Reference { get; set; }

    /// <summary>The owner's complaint that it answers; null where it answers none.</summary>
    public Guid? Squawk { get; set; }

    /// <summary>What putting it right costs, at a survey, and what is said of it there.</summary>
    public string? Cost { get; set; }
    public bool SellerPays { get; set; }
    public bool Hidden { get; set; }
    public bool Stops { get; set; }
    public List<IFormFile> Photos { get; set; } = [];
    public List<IFormFile> Sounds { get; set; } = [];
    public List<IFormFile> Videos { get; set; } = [];

    /// <summary>What was drawn on pictures before they were sent, each as JSON.</summary>
    public List<string> Drawn { get; set; } = [];

    public TypedFind ToFind() => new(What, Zone, Where, Class, Grounded, Why, Reference, How, Measured, Note, Foreign, Task, Judged, Squawk,
        Kept.Count > 0 || Photos.Concat(Sounds).Concat(Videos).Any(file => file.Length > 0));

    /// <summary>Pictures that were shared to the product before, by their SHA-256.</summary>
    public List<string> Kept { get; set; } = [];
}

/// <summary>The form that takes something found down: on its own page, or over any page of the walk.</summary>
public sealed record CaptureView(Job Job, IReadOnlyList<ZoneState> Zones, FindForm Form, IReadOnlyList<Refusal> Problems, string BackTo,
    bool IsDialog);
