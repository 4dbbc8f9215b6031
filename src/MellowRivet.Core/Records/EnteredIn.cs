using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Records;

/// <summary>Whose book something is entered in. On a twin the work on one engine never stands in the other one's.</summary>
/// <param name="Book">The kind of book.</param>
/// <param name="Carrier">The engine or propeller whose own book it is; null for the airframe's.</param>
/// <param name="Said">What is said before it, where its own book is not among those that are signed; "" else.</param>
public sealed record EnteredIn(Book Book, Guid? Carrier, string Said)
{
    /// <param name="aircraft">The aircraft with its parts, those taken off too.</param>
    /// <param name="part">The part it is on; null for none that the file follows.</param>
    /// <param name="zoneBook">The book of the zone it lies in.</param>
    /// <param name="zonePart">The engine or propeller that zone is about; null for neither, or for several.</param>
    public static EnteredIn Of(Aircraft aircraft, Guid? part, Book zoneBook, Guid? zonePart)
    {
        List<Installation> fitted = zoneBook switch { Book.Engine => [.. aircraft.Engines], Book.Propeller => [.. aircraft.Propellers],
            _ => [] };
        if ((aircraft.CarriedBy(part)
            ?? (zoneBook is Book.Engine or Book.Propeller ? aircraft.CarriedBy(zonePart) ?? (fitted is [var only] ? only : null) : null))
            is not { } on)
            return zoneBook is Book.Engine or Book.Propeller
                ? new(Book.Airframe, null, fitted.Count > 1 ? $"{zoneBook} (it isn’t said which): " : $"{zoneBook}: ")
                : new(zoneBook, null, "");
        return on.IsOn
            ? new(on.Component.Kind == ComponentKind.Propeller ? Book.Propeller : Book.Engine, on.ComponentId, "")
            : new(Book.Airframe, null, $"{Capital(on.Component.Title)} s/n {on.Component.SerialNumber}, taken off at {on.RemovedAt} h: ");
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
