using MellowRivet.Core.Books;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MellowRivet.Store.Mapping;

internal sealed class AircraftMapping : IEntityTypeConfiguration<Aircraft>
{
    public void Configure(EntityTypeBuilder<Aircraft> aircraft)
    {
        aircraft.Property(row => row.Id).ValueGeneratedNever();
        aircraft.HasIndex(row => row.Registration).IsUnique();
        aircraft.Property(row => row.Configuration).AsJson();
        aircraft.Ignore(row => row.Engines).Ignore(row => row.Propellers).Ignore(row => row.Meters).Ignore(row => row.Limits)
            .Ignore(row => row.GapNotes).Ignore(row => row.CableTables).Ignore(row => row.MajorWork);
        aircraft.Property<List<Meter>>("meters").HasColumnName("Meters").AsJson();
        aircraft.Property<List<ManualLimit>>("limits").HasColumnName("Limits").AsJson();
        aircraft.Property<List<CableTable>>("cableTables").HasColumnName("CableTables").AsJson();
        aircraft.Property<List<GapNote>>("gapNotes").HasColumnName("GapNotes").AsJson();
        aircraft.Property<List<MajorWork>>("majorWork").HasColumnName("MajorWork").AsJson();
        aircraft.HasMany(row => row.Installations).WithOne().HasForeignKey(stay => stay.AircraftId);
        aircraft.HasMany(row => row.MeterReadings).WithOne().HasForeignKey(reading => reading.AircraftId);
    }
}

internal sealed class KnownTypeMapping : IEntityTypeConfiguration<KnownType>
{
    public void Configure(EntityTypeBuilder<KnownType> type)
    {
        type.Property(row => row.Id).ValueGeneratedNever();
        type.Ignore(row => row.Aliases).Ignore(row => row.Name).Ignore(row => row.FullName).Ignore(row => row.Names);
        type.Property<List<string>>("aliases").HasColumnName("Aliases").AsJson();
    }
}

internal sealed class InstallationMapping : IEntityTypeConfiguration<Installation>
{
    public void Configure(EntityTypeBuilder<Installation> stay)
    {
        stay.Property(row => row.Id).ValueGeneratedNever();
        stay.Ignore(row => row.IsOn);
        stay.HasOne(row => row.Component).WithMany().HasForeignKey(row => row.ComponentId);
        stay.HasOne<Component>().WithMany().HasForeignKey(row => row.ParentId);
        // Of those that ended only: nearly every stay has not, and looking through all of them is no way to one aircraft's.
        stay.HasIndex(row => row.RemovedAt).HasFilter("RemovedAt IS NOT NULL");
    }
}

internal sealed class ComponentMapping : IEntityTypeConfiguration<Component>
{
    public void Configure(EntityTypeBuilder<Component> component)
    {
        component.ToTable("Component");
        component.Property(row => row.Id).ValueGeneratedNever();
        component.Property(row => row.CompressionRule).AsJson();
        component.Property(row => row.Ignition).AsJson();
        component.Property(row => row.OwnFiringOrder).AsJson();
        component.Ignore(row => row.Layout).Ignore(row => row.FiringOrder).Ignore(row => row.Title).Ignore(row => row.Overhauls)
            .Ignore(row => row.LastOverhaul);
        component.Property<List<Overhaul>>("overhauls").HasColumnName("Overhauls").AsJson();
        component.HasIndex(row => row.SerialNumber);
    }
}

internal sealed class MeterReadingMapping : IEntityTypeConfiguration<MeterReading>
{
    public void Configure(EntityTypeBuilder<MeterReading> reading)
    {
        reading.Property(row => row.Id).ValueGeneratedNever();
        reading.HasIndex(row => new { row.AircraftId, row.Kind, row.On });
    }
}

internal sealed class DueItemMapping : IEntityTypeConfiguration<DueItem>
{
    public void Configure(EntityTypeBuilder<DueItem> item)
    {
        item.Property(row => row.Id).ValueGeneratedNever();
        item.Property(row => row.Interval).AsJson();
        item.Property(row => row.Source).AsJson();
        item.Ignore(row => row.Done).Ignore(row => row.Last).Ignore(row => row.DoneBy);
        item.Property<List<LastDone>>("done").HasColumnName("Done").AsJson();
        item.Property<List<InspectionKind>>("doneBy").HasColumnName("DoneBy").AsJson();
        item.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        item.HasOne<Component>().WithMany().HasForeignKey(row => row.ComponentId);
        item.HasIndex(row => row.DiscrepancyId);
    }
}

internal sealed class LogBookMapping : IEntityTypeConfiguration<LogBook>
{
    public void Configure(EntityTypeBuilder<LogBook> book)
    {
        book.Property(row => row.Id).ValueGeneratedNever();
        book.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
    }
}

internal sealed class BookEntryMapping : IEntityTypeConfiguration<BookEntry>
{
    public void Configure(EntityTypeBuilder<BookEntry> entry)
    {
        entry.Property(row => row.Id).ValueGeneratedNever();
        entry.Property(row => row.Photo).AsJson();
        entry.Ignore(row => row.WaitsForWords);
        entry.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        entry.HasOne<LogBook>().WithMany().HasForeignKey(row => row.BookId);
        entry.HasIndex(row => new { row.AircraftId, row.On });
    }
}

internal sealed class PersonMapping : IEntityTypeConfiguration<Person>
{
    public void Configure(EntityTypeBuilder<Person> person)
    {
        person.Property(row => row.Id).ValueGeneratedNever();
        person.Ignore(row => row.Roles).Ignore(row => row.Certificates).Ignore(row => row.Owns).Ignore(row => row.IsHere);
        person.Property<List<Role>>("roles").HasColumnName("Roles").AsJson();
        person.Property<List<Certificate>>("certificates").HasColumnName("Certificates").AsJson();
        person.Property<List<Ownership>>("owns").HasColumnName("Owns").AsJson();
        person.Property(row => row.Week).AsJson();
        person.HasIndex(row => row.CalendarKeyHash);
    }
}
