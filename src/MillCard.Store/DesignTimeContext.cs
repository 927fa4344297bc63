using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace MillCard.Store;

/// <summary>Lets the migration tool build the model without a server.</summary>
public sealed class DesignTimeContext : IDesignTimeDbContextFactory<MillCardContext>
{
    /// <inheritdoc/>
    public MillCardContext CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<MillCardContext>().UseNpgsql("Host=127.0.0.1;Database=millcard").Options);
}
