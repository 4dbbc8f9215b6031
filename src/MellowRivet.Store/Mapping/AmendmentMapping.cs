using MellowRivet.Core.Amendments;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MellowRivet.Store.Mapping;

internal sealed class AmendmentMapping : IEntityTypeConfiguration<Amendment>
{
    public void Configure(EntityTypeBuilder<Amendment> amendment)
    {
        amendment.Property(row => row.Id).ValueGeneratedNever();
        amendment.Ignore(row => row.Records).Property<List<int>>("records").HasColumnName("Records").AsJson();
        amendment.HasIndex(row => row.AircraftId);
    }
}
