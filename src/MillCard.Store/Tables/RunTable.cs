using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Last programs of trials, as they stand in the database.</summary>
internal sealed class RunTable : IEntityTypeConfiguration<RunRow>
{
    public void Configure(EntityTypeBuilder<RunRow> run)
    {
        run.ToTable("run");
        run.HasKey(r => r.TrialId);
        run.Property(r => r.TrialId).HasColumnName("trial_id").ValueGeneratedNever();
        run.Property(r => r.Program).HasColumnName("program");
        run.Property(r => r.Layers).HasColumnName("layers");
        run.Property(r => r.Card).HasColumnName("card").HasColumnType("jsonb");
        run.Property(r => r.Result).HasColumnName("result").HasColumnType("jsonb");
        run.Property(r => r.At).HasColumnName("at");
        run.HasOne<DocumentRow>().WithOne().HasForeignKey<RunRow>(r => r.TrialId).OnDelete(DeleteBehavior.Cascade);
        run.HasOne<BlobRow>().WithMany().HasForeignKey(r => r.Program).OnDelete(DeleteBehavior.Restrict);
        run.HasOne<BlobRow>().WithMany().HasForeignKey(r => r.Layers).OnDelete(DeleteBehavior.Restrict);
    }
}
