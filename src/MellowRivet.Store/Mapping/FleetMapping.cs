using MellowRivet.Core.Fleet;
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
        aircraft.Ignore(row => row.Engines).Ignore(row => row.Propellers).Ignore(row => row.Times).Ignore(row => row.Limits).Ignore(row => row.TimeInService);
        aircraft.Property<List<TimeReading>>("times").HasColumnName("Times").AsJson();
        aircraft.Property<List<ManualLimit>>("limits").HasColumnName("Limits").AsJson();
        aircraft.HasMany(row => row.Components).WithOne().HasForeignKey(component => component.AircraftId);
    }
}

internal sealed class ComponentMapping : IEntityTypeConfiguration<Component>
{
    public void Configure(EntityTypeBuilder<Component> component)
    {
        component.Property(row => row.Id).ValueGeneratedNever();
        component.Property(row => row.CompressionRule).AsJson();
        component.Ignore(row => row.Layout);
        component.HasOne<Component>().WithMany().HasForeignKey(row => row.ParentId);
    }
}

internal sealed class PersonMapping : IEntityTypeConfiguration<Person>
{
    public void Configure(EntityTypeBuilder<Person> person)
    {
        person.Property(row => row.Id).ValueGeneratedNever();
        person.Ignore(row => row.Roles).Ignore(row => row.Certificates);
        person.Property<List<Role>>("roles").HasColumnName("Roles").AsJson();
        person.Property<List<Certificate>>("certificates").HasColumnName("Certificates").AsJson();
    }
}
