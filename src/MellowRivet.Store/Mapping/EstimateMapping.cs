using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MellowRivet.Store.Mapping;

internal sealed class BookedTimeMapping : IEntityTypeConfiguration<BookedTime>
{
    public void Configure(EntityTypeBuilder<BookedTime> booked)
    {
        booked.Property(row => row.Id).ValueGeneratedNever();
        booked.HasIndex(row => row.Kind);
        booked.HasIndex(row => new { row.By, row.Hours });
        booked.Ignore(row => row.OnWhat).Ignore(row => row.IsRunning);
        booked.HasOne<Inspection>().WithMany().HasForeignKey(row => row.InspectionId);
    }
}

internal sealed class OrderedPartMapping : IEntityTypeConfiguration<OrderedPart>
{
    public void Configure(EntityTypeBuilder<OrderedPart> part)
    {
        part.Property(row => row.Id).ValueGeneratedNever();
        part.Property(row => row.Changes).IsConcurrencyToken();
        part.HasIndex(row => new { row.InspectionId, row.Key });
        part.Ignore(row => row.Receipts).Ignore(row => row.Fitted).Ignore(row => row.SentBack).Ignore(row => row.Came)
            .Ignore(row => row.State).Ignore(row => row.CoreIsOwed).Ignore(row => row.IsThrough).Ignore(row => row.InWords);
        part.Property<List<Receipt>>("receipts").HasColumnName("Receipts").AsJson();
        part.Property<List<TakenOut>>("fitted").HasColumnName("Fitted").AsJson();
        part.Property<List<TakenOut>>("sentBack").HasColumnName("SentBack").AsJson();
        part.Property(row => row.Core).AsJson();
        part.Property(row => row.NoTrace).AsJson();
        part.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        part.HasOne<Inspection>().WithMany().HasForeignKey(row => row.InspectionId);
    }
}

internal sealed class KeptPlanMapping : IEntityTypeConfiguration<KeptPlan>
{
    public void Configure(EntityTypeBuilder<KeptPlan> plan)
    {
        plan.ToTable("Plans");
        plan.Property(row => row.Id).ValueGeneratedNever();
        plan.Property(row => row.Of).AsJson();
        plan.Property(row => row.Plan).AsJson();
        plan.Property(row => row.Moves).AsJson();
    }
}
