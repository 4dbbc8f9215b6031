using System.Security.Cryptography;
using MellowRivet.Core;
using MellowRivet.Store;
using MellowRivet.Web.Hosting;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Shops;

/// <summary>The demo's shop as of the tests' day, made once for each state of what makes it; tests work on copies.</summary>
public static class MadeShop
{
    /// <summary>The moment every copy is set to: the day the demo's days were written for.</summary>
    public static readonly DateTimeOffset Now = new(2026, 11, 25, 10, 0, 0, TimeSpan.Zero);

    private static readonly Lazy<Task<string>> Made = new(MakeAsync);

    /// <summary>Where it is; it is made where it isn't there yet.</summary>
    public static Task<string> FolderAsync() => Made.Value;

    private static async Task<string> MakeAsync()
    {
        var folder = Path.Combine(Environment.GetEnvironmentVariable("RIVET_MADE")
            ?? Path.Combine(AppContext.BaseDirectory, "made"), WhatMakesIt());
        if (Directory.Exists(folder))
            return folder;
        // In one step, so that one that was interrupted, or is made by another process meanwhile, is never taken for whole.
        var half = $"{folder}.{Guid.NewGuid():N}.half";
        var settings = new RivetSettings(new(half)) { Port = 0, Demo = true, Clock = new SetClock(Now) };
        await (await RivetApp.OpenAsync(settings, default)).DisposeAsync();
        SqliteConnection.ClearAllPools();
        try
        {
            Directory.Move(half, folder);
        }
        catch (IOException) when (Directory.Exists(folder))
        {
            Directory.Delete(half, recursive: true);
        }
        return folder;
    }

    // The program and the data that ships beside it.
    private static string WhatMakesIt()
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        foreach (var module in new[] { typeof(ShopTime), typeof(RivetDb), typeof(RivetApp), typeof(MadeShop) })
            hash.AppendData(module.Module.ModuleVersionId.ToByteArray());
        foreach (var file in new[] { "shelf", "Demo" }
            .SelectMany(folder => Directory.EnumerateFiles(Path.Combine(AppContext.BaseDirectory, folder), "*",
                SearchOption.AllDirectories))
            .Order(StringComparer.Ordinal))
            hash.AppendData(File.ReadAllBytes(file));
        return Convert.ToHexStringLower(hash.GetHashAndReset())[..16];
    }
}
