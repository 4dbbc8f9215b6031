using System.Diagnostics;
using System.Net;
using MellowRivet.Store;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>
/// Posts words, photos, verdicts, readings, compressions and signatures to a demo, kills the server at some moment, and looks: what was
/// acknowledged is there, and what wasn't is there wholly or not at all. Then again.
/// </summary>
internal static class KillTest
{
    /// <summary>How often it is killed where nobody says how often.</summary>
    public const int Usual = 1_000;

    private const int Senders = 4, LongestLife = 1_000, FirstAnswer = 60_000, VerifiedEvery = 25, MostTold = 20;

    public static async Task<int> RunAsync(int kills, int seed, CancellationToken stop)
    {
        var folder = Directory.CreateTempSubdirectory("rivet-kill-").FullName;
        var from = Stopwatch.GetTimestamp();
        Run run = new(new(folder), new(seed));
        try
        {
            using var server = new KilledServer(folder);
            await run.BeginAsync(server, stop);
            for (var kill = 1; kill <= kills; kill++)
            {
                await run.LiveAsync(server, stop);
                if (kill % VerifiedEvery == 0 || kill == kills)
                    await run.VerifyAsync(stop);
                if (!Console.IsOutputRedirected || kill % 50 == 0)
                    Console.WriteLine($"{kill} kills: {run}");
            }
            foreach (var lost in run.Lost.Take(MostTold))
                await Console.Error.WriteLineAsync(lost);
            Console.WriteLine($"Seed {seed}, {kills} kills in {Stopwatch.GetElapsedTime(from).TotalMinutes:0.0} minutes: {run}.");
            return run.Lost.Count == 0 ? 0 : 1;
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    private sealed class Run(DataFolder data, Random chance)
    {
        private readonly List<Sent> all = [];
        private readonly Dictionary<string, (HttpClient Http, string Token)> people = [];
        private Posts posts = null!;

        public List<string> Lost { get; } = [];

        /// <summary>The demo is made, and those who post enter it.</summary>
        public async Task BeginAsync(KilledServer server, CancellationToken stop)
        {
            server.Start();
            await server.UpAsync(stop);
            foreach (var name in Enum.GetValues<PostKind>().Select(Posts.By).Distinct())
                people[name] = await server.EnterAsync(name, stop);
            posts = await Posts.OfAsync(data, stop);
            server.Kill();
        }

        /// <summary>One life of the server, and what is there after it.</summary>
        public async Task LiveAsync(KilledServer server, CancellationToken stop)
        {
            await using (var db = RivetDb.Of(data))
                await posts.LookAsync(db, stop);
            List<Sent> sent = [];
            server.Start();
            // Some are killed before they are up.
            if (chance.Next(10) == 0)
                await Task.Delay(chance.Next(50, 1_500), stop);
            else
            {
                await server.UpAsync(stop);
                // What a server does for the first time takes most of a life: two kinds each time, and now and then all of them at once.
                var kinds = Enum.GetValues<PostKind>();
                chance.Shuffle(kinds);
                if (chance.Next(10) > 0)
                    kinds = kinds[..2];
                var answered = new TaskCompletionSource();
                using var life = CancellationTokenSource.CreateLinkedTokenSource(stop);
                var seeds = Enumerable.Range(0, Senders).Select(_ => new Random(chance.Next())).ToList();
                var sending = seeds.Select((own, sender) => Task.Run(() =>
                    SendAsync(() => posts.Next(kinds, sender, Senders, own), sent, answered, life.Token), stop)).ToList();
                // Most often somebody has had an answer: what is told is what may be lost.
                if (chance.Next(10) > 0)
                    await Task.WhenAny(answered.Task, Task.Delay(FirstAnswer, stop));
                await Task.Delay(chance.Next(LongestLife), stop);
                server.Kill();
                await life.CancelAsync();
                await Task.WhenAll(sending);
            }
            server.Kill();
            // As it lies, or once the next server has been over it.
            if (chance.Next(10) == 0)
            {
                server.Start();
                await server.UpAsync(stop);
                server.Kill();
            }
            await LookAsync(sent, stop);
            all.AddRange(sent);
        }

        private async Task SendAsync(Func<Sent> next, List<Sent> sent, TaskCompletionSource answered, CancellationToken stop)
        {
            try
            {
                while (!stop.IsCancellationRequested)
                {
                    var post = next();
                    lock (sent)
                        sent.Add(post);
                    var (http, token) = people[Posts.By(post.Kind)];
                    using var form = Form(post, token);
                    using var answer = await http.PostAsync(new Uri(post.Path, UriKind.Relative), form, stop);
                    post.Acknowledged = answer.StatusCode == HttpStatusCode.Redirect;
                    if (post.Acknowledged)
                    {
                        posts.Answered(post);
                        answered.TrySetResult();
                    }
                    else if (answer.StatusCode is not (HttpStatusCode.ServiceUnavailable or HttpStatusCode.TooManyRequests))
                        lock (sent)
                            Lost.Add($"{post.Kind} was refused: {(int)answer.StatusCode} at {post.Path}");
                }
            }
            catch (Exception killed) when (killed is HttpRequestException or OperationCanceledException or IOException)
            {
                // Nobody knows whether that one was kept.
            }
        }

        private static MultipartFormDataContent Form(Sent post, string token)
        {
            var form = new MultipartFormDataContent
                { { new StringContent($"{post.Id}"), "post" }, { new StringContent(token), KilledServer.TokenField } };
            foreach (var (name, value) in post.Fields)
                form.Add(new StringContent(value), name);
            if (post.Photo is { } photo)
                form.Add(new ByteArrayContent(photo), "photos", "kept.jpg");
            return form;
        }

        private async Task LookAsync(IReadOnlyList<Sent> sent, CancellationToken stop)
        {
            await using var db = RivetDb.Of(data);
            var ids = sent.Select(post => post.Id).ToList();
            var known = (await db.Postings.Where(row => ids.Contains(row.Id)).Select(row => row.Id).ToListAsync(stop)).ToHashSet();
            var last = sent.Where(post => post.Place is not null && known.Contains(post.Id)).GroupBy(post => post.Place)
                .Select(place => place.Last().Id).ToHashSet();
            foreach (var post in sent)
            {
                var kept = known.Contains(post.Id);
                // What was read anew since can't be seen any more.
                var there = post.Place is not null && !last.Contains(post.Id) ? kept : await post.IsThere(db, data, stop);
                if (post.Acknowledged && !(kept && there))
                    Lost.Add($"lost: {post.Kind} {post.Id} was acknowledged, {(kept ? "and is kept by half" : "and isn't kept")}");
                // Of one task only the last answer can be seen: whether one that was cut off came, its version alone doesn't tell.
                else if (kept != there && post.Kind != PostKind.Verdict)
                    Lost.Add($"half: {post.Kind} {post.Id} {(kept ? "is known and isn't there" : "is there and isn't known")}");
            }
        }

        /// <summary>Everything since the beginning is there still, the file is whole, and what was signed holds.</summary>
        public async Task VerifyAsync(CancellationToken stop)
        {
            await LookAsync(all, stop);
            await using var db = RivetDb.Of(data);
            var whole = await db.Database.SqlQuery<string>($"PRAGMA integrity_check").ToListAsync(stop);
            if (whole is not ["ok"])
                Lost.Add($"the file: {string.Join("; ", whole)}");
            foreach (var fault in (await ShopDatabase.VerifyAsync(db, data, stop)).Faults)
                Lost.Add($"signed: {fault}");
            if (Directory.EnumerateFiles(data.Outbox, "*.half").Any())
                Lost.Add("a mail waits for its link");
        }

        public override string ToString() =>
            $"{all.Count(post => post.Acknowledged):#,0} acknowledged ("
            + string.Join(", ", all.Where(post => post.Acknowledged).GroupBy(post => post.Kind).OrderBy(kind => kind.Key)
                .Select(kind => $"{kind.Count():#,0} {kind.Key}"))
            + $"), {all.Count(post => !post.Acknowledged):#,0} cut off, {Lost.Count} lost or by half";
    }
}
