using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace MellowRivet.Store;

/// <summary>Lets `dotnet ef` see the model without starting the web application.</summary>
internal sealed class DesignTime : IDesignTimeDbContextFactory<RivetDb>
{
    public RivetDb CreateDbContext(string[] args) => new(new DbContextOptionsBuilder<RivetDb>().UseSqlite("Data Source=design.db").Options);
}
